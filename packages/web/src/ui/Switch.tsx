import { Check } from 'lucide-react';
import { type ReactNode } from 'react';

interface SwitchProps {
  readonly on: boolean;
  readonly onChange: (on: boolean) => void;
  readonly children: ReactNode;
}

/** On or off; Enter turns it as the space does. */
export const Switch = ({ on, onChange, children }: SwitchProps) => (
  <button type="button" role="switch" aria-checked={on} className="switch" onClick={() => onChange(!on)}>
    <span aria-hidden className="switch-box">
      {on && <Check size={15} strokeWidth={3} />}
    </span>
    <span>{children}</span>
  </button>
);

import { lazy, type ReactNode, Suspense, useState } from 'react';
import { useFetchedSoon } from './later.ts';

const load = () => import('./Opened.tsx');
const Opened = lazy(() => load().then((m) => ({ default: m.Opened })));

interface PopupProps {
  /** What opens, and what it is called. */
  readonly name: string;
  /** What the button is called, where it shows something else. */
  readonly label?: string;
  /** What the button shows. */
  readonly children: ReactNode;
  readonly body: ReactNode;
  readonly buttonClass?: string;
  readonly panelClass?: string;
  readonly open?: boolean;
  readonly onOpenChange?: (open: boolean) => void;
}

/** A button with a panel that opens below it. What opens panels is loaded once the page stands. */
export function Popup({
  name,
  label,
  children,
  body,
  buttonClass = 'button',
  panelClass = 'flex w-[min(24rem,calc(100vw-20px))] flex-col gap-3 p-3',
  open,
  onOpenChange,
}: PopupProps) {
  const [own, setOwn] = useState(false);
  const is = open ?? own;
  const set = onOpenChange ?? setOwn;
  const [asked, ask] = useState(false);
  if (is && !asked) ask(true);
  useFetchedSoon(load);
  const closed = (
    <button
      type="button"
      className={buttonClass}
      aria-label={label}
      aria-haspopup="dialog"
      aria-expanded={false}
      onClick={() => set(true)}
    >
      {children}
    </button>
  );
  if (!asked) return closed;
  const parts = { name, label, buttonClass, panelClass, body, open: is, onOpenChange: set };
  return (
    <Suspense fallback={closed}>
      <Opened {...parts}>{children}</Opened>
    </Suspense>
  );
}

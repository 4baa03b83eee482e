import { cloneElement, type ReactElement, type ReactNode, useId } from 'react';

interface FieldProps {
  readonly label: string;
  readonly error?: string | undefined;
  readonly hint?: ReactNode;
  readonly children: ReactElement<{
    id?: string;
    'aria-invalid'?: boolean;
    'aria-describedby'?: string | undefined;
    className?: string;
  }>;
}

/** A labelled control with its hint and its error. */
export function Field({ label, error, hint, children }: FieldProps) {
  const id = useId();
  const told = error || hint ? `${id}-told` : undefined;
  return (
    <div className="flex flex-col gap-1">
      <label htmlFor={id} className="text-sm font-semibold">
        {label}
      </label>
      {cloneElement(children, { id, 'aria-invalid': Boolean(error), 'aria-describedby': told })}
      {told && (
        <p id={told} className={error ? 'error' : 'text-sm text-soft'} role={error ? 'alert' : undefined}>
          {error ?? hint}
        </p>
      )}
    </div>
  );
}

interface ChoiceProps<T extends string> {
  readonly value: T;
  readonly onChange: (value: T) => void;
  readonly options: readonly { readonly id: T; readonly name: string }[];
  readonly id?: string;
  readonly className?: string;
  readonly 'aria-label'?: string;
}

/** One of a few. */
export function Choice<T extends string>({
  value,
  onChange,
  options,
  className = '',
  ...rest
}: ChoiceProps<T>) {
  return (
    <select
      {...rest}
      className={`input ${className}`}
      value={value}
      onChange={(e) => onChange(e.target.value as T)}
    >
      {options.map((o) => (
        <option key={o.id} value={o.id}>
          {o.name}
        </option>
      ))}
    </select>
  );
}

interface WholeProps {
  readonly value: number;
  readonly min: number;
  readonly max: number;
  readonly onChange: (value: number) => void;
  readonly id?: string;
  readonly className?: string;
  readonly 'aria-label'?: string;
}

/** A whole number within bounds; what is typed outside them is kept on show, but not used. */
export function Whole({ value, min, max, onChange, className = '', ...rest }: WholeProps) {
  return (
    <input
      {...rest}
      key={value}
      type="number"
      className={`input ${className}`}
      min={min}
      max={max}
      step={1}
      defaultValue={value}
      onChange={(e) => {
        const n = e.target.valueAsNumber;
        const good = Number.isInteger(n) && n >= min && n <= max;
        e.target.setCustomValidity(good ? '' : `A whole number from ${min} to ${max}.`);
        if (good && n !== value) onChange(n);
        else if (!good) e.target.reportValidity();
      }}
    />
  );
}

import { cloneElement, type ReactElement, type ReactNode, useEffect, useId, useState } from 'react';

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
        <p id={told} className={error ? 'error' : 'text-sm text-soft'}>
          {error ?? hint}
        </p>
      )}
      <Rested text={error ?? (typeof hint === 'string' ? hint : '')} />
    </div>
  );
}

/** What a field says is told once the typing rests, not at every letter; then it goes, as it also stands under the field. */
const REST_MS = 900;
const TOLD_MS = 3000;
function Rested({ text }: { text: string }) {
  const [first] = useState(text);
  const [rested, setRested] = useState('');
  useEffect(() => {
    const telling = setTimeout(() => setRested(text), REST_MS);
    const ending = setTimeout(() => setRested(''), REST_MS + TOLD_MS);
    return () => {
      clearTimeout(telling);
      clearTimeout(ending);
    };
  }, [text]);
  return (
    <span aria-live="polite" className="sr-only">
      {rested === first ? '' : rested}
    </span>
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
  /** The value that an empty field means, where it may be empty, and what stands in it then. */
  readonly none?: number;
  readonly placeholder?: string;
  readonly onChange: (value: number) => void;
  readonly id?: string;
  readonly className?: string;
  readonly 'aria-label'?: string;
}

/** A whole number within bounds; what is typed outside them is kept on show and told, but not used. */
export function Whole({
  value,
  min,
  max,
  none,
  placeholder = 'any',
  onChange,
  className = '',
  ...rest
}: WholeProps) {
  // While it is typed in, the text is the player's: the value follows it, a moment later.
  const [typed, setTyped] = useState<string | null>(null);
  const told = useId();
  /** The number that a text says; null where it says none within the bounds. */
  const read = (text: string): number | null => {
    if (text.trim() === '') return none ?? null;
    const n = Number(text);
    return Number.isInteger(n) && n >= min && n <= max ? n : null;
  };
  const bad = typed !== null && read(typed) === null;
  return (
    <>
      <input
        {...rest}
        type="number"
        className={`input ${className}`}
        min={min}
        max={max}
        step={1}
        value={typed ?? (value === none ? '' : value)}
        placeholder={none === undefined ? undefined : placeholder}
        aria-invalid={bad}
        {...(bad ? { 'aria-describedby': told } : {})}
        onChange={(e) => {
          const text = e.target.value;
          setTyped(text);
          const n = read(text);
          if (n !== null && n !== value) onChange(n);
        }}
        onBlur={() => !bad && setTyped(null)}
      />
      {bad && (
        <p id={told} className="error">
          A whole number from {min} to {max}.
        </p>
      )}
    </>
  );
}

import { type ReactNode, useState } from 'react';
import { Field, Whole } from './fields.tsx';
import { Word } from './Word.tsx';

interface NumberWordProps {
  readonly name: string;
  /** What is asked for, with its unit. */
  readonly label: string;
  readonly value: number;
  readonly min: number;
  readonly max: number;
  /** The value that an empty field means, where it may be empty. */
  readonly none?: number;
  readonly onValue: (value: number) => void;
  /** What the sentence says, where that is not the number alone. */
  readonly said?: ReactNode;
  readonly then?: string;
  /** Other ways to it. */
  readonly children?: ReactNode;
}

/** A whole number as a word of a sentence: typed, and Enter closes. */
export function NumberWord({
  name,
  label,
  value,
  said,
  then,
  onValue,
  children,
  ...limits
}: NumberWordProps) {
  const [open, setOpen] = useState(false);
  return (
    <Word
      name={name}
      {...(then !== undefined && { then })}
      open={open}
      onOpenChange={setOpen}
      body={
        <div className="flex flex-col gap-3">
          <form
            onSubmit={(e) => {
              e.preventDefault();
              setOpen(false);
            }}
          >
            <Field label={label}>
              <Whole value={value} onChange={onValue} {...limits} />
            </Field>
          </form>
          {children}
        </div>
      }
    >
      {said ?? value}
    </Word>
  );
}

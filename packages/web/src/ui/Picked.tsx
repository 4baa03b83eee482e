import { type ReactNode, startTransition, useState } from 'react';
import { afterPaint } from './later.ts';
import { type Pickable, Picks } from './Picks.tsx';
import { Word } from './Word.tsx';

interface PickedProps<T extends string> {
  readonly name: string;
  readonly options: readonly Pickable<T>[];
  readonly value: T | null;
  readonly onPick: (id: T) => void;
  /** What the sentence says, where that is not the name of what is chosen. */
  readonly said?: ReactNode;
  readonly then?: string;
  readonly weight?: 'first' | 'usual';
  /** What else is asked of the one that is chosen. */
  readonly children?: ReactNode;
  /** Whether something else is asked of one; then the list stays open. */
  readonly asksMore?: (id: T) => boolean;
}

/** A word of a sentence for which another one is chosen from a list. */
export function Picked<T extends string>({
  name,
  options,
  value,
  onPick,
  said,
  then,
  weight,
  children,
  asksMore,
}: PickedProps<T>) {
  const [open, setOpen] = useState(false);
  const pick = (id: T): void => {
    // What else it asks is there for the next key.
    if (asksMore?.(id)) return onPick(id);
    // What follows from it may be much: it is drawn piece by piece.
    startTransition(() => onPick(id));
    afterPaint(() => setOpen(false));
  };
  return (
    <Word
      name={name}
      {...(then !== undefined && { then })}
      {...(weight && { weight })}
      open={open}
      onOpenChange={setOpen}
      body={
        <Picks name={name} options={options} value={value} onPick={pick}>
          {children}
        </Picks>
      }
    >
      {said ?? options.find(({ id }) => id === value)?.name ?? 'choose'}
    </Word>
  );
}

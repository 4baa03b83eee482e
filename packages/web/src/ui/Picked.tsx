import { type KeyboardEvent, type ReactNode, useEffect, useRef, useState, useTransition } from 'react';
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

/** The first field of what else is asked of the one that is chosen. */
const ASKED = '[aria-pressed="true"] + div :is(input, select, button)';

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
  const [drawing, start] = useTransition();
  const list = useRef<HTMLDivElement>(null);
  // A tab key that comes before what else is asked goes there once that is drawn.
  const tabbed = useRef(false);
  useEffect(() => {
    if (drawing || !tabbed.current) return;
    tabbed.current = false;
    list.current?.querySelector<HTMLElement>(ASKED)?.focus();
  }, [drawing]);
  const onKey = (e: KeyboardEvent): void => {
    if (!drawing || e.key !== 'Tab' || e.shiftKey) return;
    e.preventDefault();
    tabbed.current = true;
  };
  const pick = (id: T): void => {
    // What follows from it may be much: it is drawn piece by piece.
    start(() => onPick(id));
    if (!asksMore?.(id)) afterPaint(() => setOpen(false));
  };
  return (
    <Word
      name={name}
      {...(then !== undefined && { then })}
      {...(weight && { weight })}
      open={open}
      onOpenChange={setOpen}
      body={
        <div ref={list} onKeyDown={onKey}>
          <Picks name={name} options={options} value={value} onPick={pick}>
            {children}
          </Picks>
        </div>
      }
    >
      {said ?? options.find(({ id }) => id === value)?.name ?? 'choose'}
    </Word>
  );
}

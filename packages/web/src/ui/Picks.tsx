import { type KeyboardEvent, type ReactNode } from 'react';
import { beginHere } from './focus.ts';
import { walkedByLetters } from './walked.ts';

/** One of several that can be chosen. */
export interface Pickable<T extends string = string> {
  readonly id: T;
  readonly name: string;
  /** What is said beside its name. */
  readonly tag?: string | undefined;
  /** What is said under its name. */
  readonly note?: string | undefined;
  /** Whether it is shown with its note, and cannot be chosen. */
  readonly off?: boolean;
  /** What it stands under, with those beside it that stand under the same. */
  readonly group?: string;
}

interface PicksProps<T extends string> {
  readonly name: string;
  readonly options: readonly Pickable<T>[];
  readonly value: T | null;
  readonly onPick: (id: T) => void;
  /** What else is asked of the one that is chosen. */
  readonly children?: ReactNode;
  /** Whether it stands in the page, and does not take the keyboard as it opens. */
  readonly standing?: boolean;
}

const onKey = (e: KeyboardEvent<HTMLElement>): void =>
  walkedByLetters(e, [...e.currentTarget.querySelectorAll<HTMLElement>('[data-pick]')], {
    next: ['ArrowDown'],
    last: ['ArrowUp'],
  })?.focus();

/** A list that one of several is chosen from, walked by arrow keys and letters, with what else is asked of the chosen one under it. */
export function Picks<T extends string>({
  name,
  options,
  value,
  onPick,
  children,
  standing = false,
}: PicksProps<T>) {
  return (
    <div role="group" aria-label={name} className="flex flex-col" onKeyDown={onKey}>
      {options.map(({ id, name: called, tag, note, group, off = false }, i) => {
        const chosen = id === value;
        return (
          <div key={id} className={`pick-row border-l-4 ${chosen ? 'border-ink' : 'border-transparent'}`}>
            {group && group !== options[i - 1]?.group && (
              <h3 className="px-2 pt-2 text-sm font-semibold text-soft">{group}</h3>
            )}
            <button
              type="button"
              data-pick
              ref={chosen && !standing ? beginHere : undefined}
              aria-pressed={chosen}
              aria-label={called}
              aria-description={[tag, note].filter(Boolean).join('. ') || undefined}
              aria-disabled={off}
              onClick={() => !off && onPick(id)}
              className="pick"
            >
              <span className={chosen ? 'font-bold' : note ? 'font-semibold' : ''}>{called}</span>
              {tag && <span className="ml-2 text-sm text-soft">{tag}</span>}
              {note && <span className="block text-sm text-soft">{note}</span>}
            </button>
            {chosen && children && (
              <div className="flex flex-col gap-2 px-2 py-2 empty:hidden">{children}</div>
            )}
          </div>
        );
      })}
    </div>
  );
}

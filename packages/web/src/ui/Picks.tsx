import { type KeyboardEvent, type ReactNode } from 'react';
import { beginHere } from './focus.ts';
import { isHeld, walked } from './walked.ts';

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
}

/** Arrow keys walk the list, a letter goes to the next one that begins with it. */
function onKey(e: KeyboardEvent<HTMLElement>): void {
  const all = [...e.currentTarget.querySelectorAll<HTMLElement>('[data-pick]')];
  const at = all.indexOf(e.target as HTMLElement);
  if (at < 0 || isHeld(e)) return;
  const letter = e.key.length === 1 && e.key !== ' ' ? e.key.toLowerCase() : null;
  const beginning = [...all.slice(at + 1), ...all.slice(0, at)].find(
    (it) => letter && it.textContent.trim().toLowerCase().startsWith(letter),
  );
  if (beginning) e.preventDefault();
  (beginning ?? walked(e, all, { next: ['ArrowDown'], last: ['ArrowUp'] }))?.focus();
}

/** A list that one of several is chosen from, with what else is asked of the chosen one under it. */
export function Picks<T extends string>({ name, options, value, onPick, children }: PicksProps<T>) {
  return (
    <div role="group" aria-label={name} className="flex flex-col" onKeyDown={onKey}>
      {options.map(({ id, name: called, tag, note, group, off = false }, i) => {
        const chosen = id === value;
        return (
          <div key={id} className={`border-l-4 ${chosen ? 'border-ink' : 'border-transparent'}`}>
            {group && group !== options[i - 1]?.group && (
              <h3 className="px-2 pt-2 text-sm font-semibold text-soft">{group}</h3>
            )}
            <button
              type="button"
              data-pick
              ref={chosen ? beginHere : undefined}
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

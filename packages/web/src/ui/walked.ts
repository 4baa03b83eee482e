import { type KeyboardEvent } from 'react';

/** The keys that lead to the next one and to the one before. */
interface Ways {
  readonly next: readonly string[];
  readonly last: readonly string[];
}

/** Whether a key belongs to the browser or the system. */
export const isHeld = (e: KeyboardEvent): boolean => e.ctrlKey || e.metaKey || e.altKey;

/** Where a key leads from the one of some that it was pressed on, Home and End to either end; undefined where it leads nowhere. */
export function walked<E extends Element>(
  e: KeyboardEvent,
  all: readonly E[],
  { next, last }: Ways,
): E | undefined {
  const at = all.indexOf(e.target as E);
  if (at < 0 || isHeld(e)) return undefined;
  const steps = new Map([
    ...next.map((key) => [key, at + 1] as const),
    ...last.map((key) => [key, at - 1] as const),
    ['Home', 0] as const,
    ['End', all.length - 1] as const,
  ]);
  const to = steps.get(e.key);
  if (to === undefined) return undefined;
  e.preventDefault();
  return all[to];
}

/** As `walked`; a letter goes to the next one that begins with it. */
export function walkedByLetters<E extends HTMLElement>(
  e: KeyboardEvent,
  all: readonly E[],
  ways: Ways,
): E | undefined {
  const at = all.indexOf(e.target as E);
  if (at < 0 || isHeld(e)) return undefined;
  const letter = e.key.length === 1 && e.key !== ' ' ? e.key.toLowerCase() : null;
  const beginning = [...all.slice(at + 1), ...all.slice(0, at)].find(
    (it) => letter && it.textContent.trim().toLowerCase().startsWith(letter),
  );
  if (beginning) e.preventDefault();
  return beginning ?? walked(e, all, ways);
}

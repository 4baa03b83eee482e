import { browserKeeping } from '../ports/keeping.ts';

/** Where the browser keeps what each of its inputs adds, in ms by the input's name. */
const DELAYS_AT = 'crow-ladder.delays';
/** Within which it can be set, in ms. */
export const DELAY_LIMITS = [0, 500] as const;

/** What each input adds; a browser that keeps nothing, or something else there, knows none. */
function kept(): Readonly<Record<string, number>> {
  try {
    const read: unknown = JSON.parse(browserKeeping.getItem(DELAYS_AT) ?? '{}');
    return read !== null && typeof read === 'object' ? (read as Record<string, number>) : {};
  } catch {
    return {};
  }
}

/** What an input adds, in ms; null where it was not measured. */
export function delayOf(input: string): number | null {
  const ms = kept()[input];
  return Number.isInteger(ms) && ms! >= DELAY_LIMITS[0] && ms! <= DELAY_LIMITS[1] ? ms! : null;
}

/** Keeps what an input adds, in ms; null forgets it. */
export function keepDelay(input: string, ms: number | null): void {
  const all = { ...kept(), [input]: ms };
  const known = Object.fromEntries(Object.entries(all).filter(([, it]) => it !== null));
  try {
    browserKeeping.setItem(DELAYS_AT, JSON.stringify(known));
  } catch {
    // It holds for this visit.
  }
}

import { nanoid } from 'nanoid';

/** What the server is given of the world outside: a test gives it a time and a chance of its own. */
export interface World {
  /** ms since the beginning of 1970. */
  readonly now: () => number;
  /** An id that nothing else has. */
  readonly id: () => string;
  /** Does work so many ms from now, unless the server has ended by then. */
  readonly later: (ms: number, work: () => void) => void;
}

export const WORLD: World = {
  now: () => Date.now(),
  id: () => nanoid(12),
  later: (ms, work) => void setTimeout(work, ms).unref(),
};

/** A time as it is kept. */
export const iso = (ms: number): string => new Date(ms).toISOString();

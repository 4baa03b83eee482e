import { type Level } from '../workers/listening.ts';

/** How loud what comes in is, told many times a second to what shows it alone. */
export function levels() {
  let now: Level | null = null;
  const looking = new Set<() => void>();
  return {
    now: (): Level | null => now,
    tell: (level: Level | null): void => {
      now = level;
      for (const look of looking) look();
    },
    subscribe: (look: () => void): (() => void) => {
      looking.add(look);
      return () => void looking.delete(look);
    },
  };
}
export type Levels = ReturnType<typeof levels>;

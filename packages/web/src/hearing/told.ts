/** A value that is told to those alone who look at it, however often it changes; null while there is none. */
export function told<T>() {
  let now: T | null = null;
  const looking = new Set<() => void>();
  return {
    now: (): T | null => now,
    tell: (to: T | null): void => {
      now = to;
      for (const look of looking) look();
    },
    subscribe: (look: () => void): (() => void) => {
      looking.add(look);
      return () => void looking.delete(look);
    },
  };
}
export type Told<T> = ReturnType<typeof told<T>>;

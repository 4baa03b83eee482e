/** Which way a run goes through the spots that it is made of. */
export type Direction = 'up' | 'down' | 'both';

/**
 * Spots in their order, backwards, or there and back; the note on which it turns is struck once unless asked for twice.
 *
 * @example routeThrough([1, 2, 3], 'both') // [1,2,3,2,1]
 */
export function routeThrough<T>(spots: readonly T[], direction: Direction, topTwice = false): readonly T[] {
  if (direction === 'up') return spots;
  const down = [...spots].reverse();
  return direction === 'down' ? down : [...spots, ...(topTwice ? down : down.slice(1))];
}

import { type Route } from './run.ts';

/** Which way a run goes through the spots that it is made of. */
export type Direction = 'up' | 'down' | 'both';

/** Spots in their order, backwards, or there and back; the note on which it turns is struck once unless asked for twice. */
export function routeThrough(spots: Route, direction: Direction, topTwice = false): Route {
  if (direction === 'up') return spots;
  const down = [...spots].reverse();
  return direction === 'down' ? down : [...spots, ...(topTwice ? down : down.slice(1))];
}

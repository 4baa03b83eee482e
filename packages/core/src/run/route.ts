import { type Position } from '../position.ts';
import { type Route } from './run.ts';

/** Which way a run goes through the spots that it is made of. */
export type Direction = 'up' | 'down' | 'both';

/** The spots of a position in playing order, up, down, or up and back with the top note once. */
export function routeThrough(spots: Position['spots'], direction: Direction): Route {
  if (direction === 'up') return spots;
  const down = [...spots].reverse();
  return direction === 'down' ? down : [...spots, ...down.slice(1)];
}

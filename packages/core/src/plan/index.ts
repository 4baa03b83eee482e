/** Planned climbs: lines, limits, the easiest ways. */
export * from './task.ts';
export * from './notes.ts';
export { type Apart, costOfWay, waysOf } from './search.ts';
export * from './plan.ts';

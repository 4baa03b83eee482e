/** Sounds as numbers. */
export * from './pluck.ts';
export * from './drone.ts';
export * from './strings.ts';

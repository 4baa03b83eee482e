/** Rules that spread a scale over the strings. */
export * from './layout.ts';
export * from './registry.ts';
export { inPosition } from './inPosition.ts';
export { octaveIn } from './regions.ts';
export { pair } from './pair.ts';
export { single } from './single.ts';
export { fourthsColumn } from './fourths.ts';

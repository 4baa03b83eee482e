/** Moves to another key, mode, string set, tuning or capo. */
export * from './move.ts';
export * from './registry.ts';
export * from './says.ts';
export * from './key.ts';
export * from './mode.ts';
export * from './stringSet.ts';
export * from './fourthsWindow.ts';
export * from './tuning.ts';
export * from './capo.ts';
export * from './tension.ts';
export * from './fitTuning.ts';

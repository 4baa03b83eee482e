/** Chords: of a scale, inside a position, and as they are held. */
export * from './chord.ts';
export * from './roman.ts';
export * from './harmonise.ts';
export * from './inside.ts';
export * from './grips.ts';
export * from './progression.ts';
export * from './scalesOver.ts';
export * from './throughChanges.ts';
export * from './voicing.ts';

/**
 * The public face of the computation. Frets count from the nut or the capo, pitches are MIDI numbers, intervals are
 * half steps, lengths are mm. String 1 is the highest as a tuning is written; tunings are written lowest string first.
 */
export * from './result.ts';
export * from './note.ts';
export * from './degree.ts';
export * from './scale.ts';
export * from './scaleCatalogue.ts';
export * from './naming.ts';
export * from './ownScale.ts';
export * from './root.ts';
export * from './instrument.ts';
export * from './tuning.ts';
export * from './tuningTable.ts';
export * from './neck.ts';
export * from './layouts/spec.ts';
export * from './layout.ts';
export { fourthsColumn } from './layouts/wide.ts';
export * from './position.ts';
export * from './signature.ts';
export * from './numbering.ts';
export * from './ladder.ts';
export * from './compare.ts';
export * from './laws.ts';
export * from './fingering/costs.ts';
export * from './fingering/solve.ts';

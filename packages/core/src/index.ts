/**
 * The public face of the computation. Frets count from the nut or the capo, pitches are MIDI numbers, intervals are
 * half steps, lengths are mm. String 1 is the highest as a tuning is written; tunings are written lowest string first.
 */
export * from './result.ts';
export * from './words.ts';
export * from './arithmetic.ts';
export * from './lazily.ts';
export * from './seeded.ts';
export * from './textId.ts';
export * from './note.ts';
export * from './degree.ts';
export * from './scale.ts';
export * from './scaleCatalogue.ts';
export * from './naming.ts';
export * from './ownScale.ts';
export * from './triad.ts';
export * from './alter.ts';
export * from './root.ts';
export * from './instrument.ts';
export * from './tuning.ts';
export * from './tuningTable.ts';
export * from './alias.ts';
export * from './said.ts';
export * from './place.ts';
export * from './placement.ts';
export * from './neck.ts';
export * from './position.ts';
export * from './numbering.ts';
export * from './compare.ts';
export * from './laws.ts';

/** Phrases: what a player made and keeps, moved and placed anew. */
export * from './phrase.ts';
export * from './lengths.ts';
export * from './told.ts';
export * from './changes.ts';
export * from './place.ts';
export * from './edit.ts';
export * from './fromRun.ts';
export * from './known.ts';
export * from './line.ts';
export * from './overChords.ts';
export * from './tappedTimes.ts';

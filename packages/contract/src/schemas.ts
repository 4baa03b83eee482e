/** What reads and checks the kept things, with the validation library: loaded where something is read. */
export * from './fields.ts';
export * from './document/parts/instrument.ts';
export * from './document/parts/layout.ts';
export * from './document/parts/overlay.ts';
export * from './document/parts/phrase.ts';
export * from './document/parts/progression.ts';
export * from './document/parts/run.ts';
export * from './document/read.ts';
export * from './document/readBackup.ts';
export * from './document/readChartFile.ts';
export * from './draft.ts';
export * from './settingsSchema.ts';
export * from './shape.ts';
export * from './validate.ts';
export * from './querySchema.ts';
export * from './collectionSchema.ts';
export * from './roundSchema.ts';

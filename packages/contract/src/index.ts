/** What server and interface agree on: the kept things, their bounds, and the form of errors. Reading them is in schemas.ts. */
export * from './limits.ts';
export * from './text.ts';
export * from './document/otherWord.ts';
export * from './document/plan.ts';
export * from './document/run.ts';
export * from './document/runWord.ts';
export * from './document/state.ts';
export * from './document/words.ts';
export * from './document/backup.ts';
export * from './chart.ts';
export * from './settings.ts';
export * from './ownScale.ts';
export * from './summary.ts';
export * from './library.ts';
export * from './practice.ts';
export * from './restore.ts';
export * from './checked.ts';

/** What can be shown, practised, written and kept, with its fingers. */
export * from './source.ts';
export * from './position.ts';
export * from './added.ts';
export * from './climb.ts';
export * from './plan.ts';
export * from './chord.ts';
export * from './changes.ts';

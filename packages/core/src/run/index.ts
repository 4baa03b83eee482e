/** Runs: routes, fingers, articulation, time, and how they are written. */
export * from './run.ts';
export * from './route.ts';
export * from './costs.ts';
export * from './grips.ts';
export * from './groups.ts';
export * from './hands.ts';
export { isAlike, kindsOf } from './alike.ts';
export * from './fingers.ts';
export * from './articulate.ts';
export * from './bend.ts';
export * from './passing.ts';
export * from './strike.ts';
export * from './time.ts';
export * from './signature.ts';
export * from './tablature.ts';
export * from './strokes.ts';
export * from './schedule.ts';

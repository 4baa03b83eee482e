/** What is laid over a scale on the neck: another scale, and what lies in both. */
export * from './scaleOverlay.ts';
export * from './added.ts';
export * from './alter.ts';
export * from './setFacts.ts';
export * from './whatIsIt.ts';

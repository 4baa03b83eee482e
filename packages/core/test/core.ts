/** All of the computation, as tests read it. */
export * from '../src/index.ts';
export * from '../src/asking/index.ts';
export * from '../src/chords/index.ts';
export * from '../src/climbs/index.ts';
export * from '../src/drills/index.ts';
export * from '../src/kinds/index.ts';
export * from '../src/ladder/index.ts';
export * from '../src/layouts/index.ts';
export * from '../src/moves/index.ts';
export * from '../src/notation/index.ts';
export * from '../src/overlays/index.ts';
export * from '../src/phrases/index.ts';
export * from '../src/plan/index.ts';
export * from '../src/practice/index.ts';
export * from '../src/run/index.ts';
export * from '../src/sound/index.ts';
export * from '../src/sources/index.ts';

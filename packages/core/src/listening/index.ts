/** What a guitar that is played says: which notes, when, and what became of those that were asked for. */
export * from './align.ts';
export * from './holes.ts';
export * from './listener.ts';
export * from './salience.ts';
export * from './spectrum.ts';
export * from './standIn.ts';
export * from './ear.ts';
export * from './verdicts.ts';
export * from './summary.ts';
export * from './own.ts';
export * from './tuner.ts';
export * from './takenDown.ts';
export * from './delay.ts';

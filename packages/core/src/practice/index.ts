/** Rounds and tempos. */
export * from './tempoLadder.ts';
export * from './rounds.ts';

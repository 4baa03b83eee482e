import { type Articulated, QUARTER, type Run } from './run.ts';

/** Notes a beat that divide a quarter note into whole ticks. */
export type NotesPerBeat = 1 | 2 | 3 | 4 | 6;

/** Evenly spaced notes, `perBeat` to a quarter note, from tick 0. */
export function inTime(steps: readonly Articulated[], perBeat: NotesPerBeat = 2): Run {
  const length = QUARTER / perBeat;
  return steps.map((step, i) => ({ ...step, start: i * length, length }));
}

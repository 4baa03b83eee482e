import { type Articulated, QUARTER, type Run } from './run.ts';

/** Notes a beat that divide a quarter note into whole ticks. */
export type NotesPerBeat = 1 | 2 | 3 | 4 | 6;

/**
 * Evenly spaced notes, `perBeat` to a quarter note, from tick 0.
 *
 * @example inTime(articulate(steps)).at(-1).start // 5280
 */
export function inTime(steps: readonly Articulated[], perBeat: NotesPerBeat = 2): Run {
  const length = QUARTER / perBeat;
  return steps.map((step, i) => ({ ...step, start: i * length, length }));
}

/** Call and answer: bars that sound, and as many that are left free for the player, in turn. */
export const CALL_BARS = 2;
/**
 * A run with as many bars left free after every two of it, for the player to answer in.
 *
 * @example withAnswers(run, 4).length // 12
 */
export function withAnswers(run: Run, beats: number): Run {
  const call = CALL_BARS * beats * QUARTER;
  return run.map((step) => ({ ...step, start: step.start + Math.floor(step.start / call) * call }));
}

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

/** Bars of a run, and those that are left free before and after them, in turn. */
export interface Turns {
  readonly before: number;
  readonly played: number;
  readonly after: number;
}
/** Call and answer: two bars sound, and as many are left free for the player. */
export const ANSWERED: Turns = { before: 0, played: 2, after: 2 };
/**
 * How many bars it takes until all begins again.
 *
 * @example barsOf(ANSWERED) // 4
 */
export const barsOf = ({ before, played, after }: Turns): number => before + played + after;
/**
 * A run with bars left free, by turns; `beats` are the quarter notes of a bar.
 *
 * @example inTurns(run, 4, ANSWERED).length // 12
 */
export function inTurns(run: Run, beats: number, turns: Turns): Run {
  const bar = beats * QUARTER;
  return run.map((step) => {
    const turn = Math.floor(step.start / (turns.played * bar));
    return { ...step, start: step.start + (turns.before + turn * (turns.before + turns.after)) * bar };
  });
}

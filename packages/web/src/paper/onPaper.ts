import { type ScoreOptions } from '@crow-ladder/core/notation';
import { type Fingered, type Run, type Stroke } from '@crow-ladder/core/run';

/** A run that a task puts on a sheet of paper, as it is written, with what is said of it. */
export interface OnPaper {
  /** Which of the sheets it is for. */
  readonly sheet: 'position' | 'practice';
  /** "Groups of three on the root position". */
  readonly title: string;
  readonly said: readonly string[];
  readonly run: Run;
  /** Its notes with their fingers, as neck and close-up show them. */
  readonly steps: readonly Fingered[];
  readonly as: ScoreOptions;
  /** By the step of the run. */
  readonly strokes: readonly (Stroke | null)[];
}

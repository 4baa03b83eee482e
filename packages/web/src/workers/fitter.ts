import { type Instrument } from '@crow-ladder/core';
import { type Fitted, type FitShape, type FitTuning, fitTunings } from '@crow-ladder/core/moves';
import { type HandOptions } from '@crow-ladder/core/run';
import { expose } from 'comlink';
import { type TaskWorker } from './useWork.ts';

/** Shapes, and the tunings that are tried for them on an instrument. */
export interface FitWork {
  readonly tunings: readonly FitTuning[];
  readonly shapes: readonly FitShape[];
  readonly on: Instrument;
  readonly hand: HandOptions;
}

/** The search for a tuning, away from the page. */
const fitter: TaskWorker<FitWork, readonly Fitted[]> = {
  work: ({ tunings, shapes, on, hand }, onTried) => fitTunings(tunings, shapes, on, hand, onTried),
};
expose(fitter);

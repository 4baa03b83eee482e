import { usualOf } from '@crow-ladder/core/kinds';
import { DEFAULT_SETTINGS, type KeptInstrument, type Settings } from '@crow-ladder/contract';
import { type Instrument, keySaid, type Result } from '@crow-ladder/core';
import { rankLayouts, type Suited } from '@crow-ladder/core/layouts';
import {
  type AnyMove,
  type FourthsWindow,
  fourthsWindow,
  moved,
  type MoveSpec,
  MOVES,
  type Outcome,
} from '@crow-ladder/core/moves';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { applied, type Model, modelOf, movingOf } from '../../model/model.ts';
import { type Instead } from '../../task/task.ts';
import { type MoveParams } from './params.ts';
import { targetOf } from './target.ts';

/** The move that is looked at with what is asked of it; null where a tool is looked at, or nothing is in front. */
export function asked(
  model: Model,
  { view, move }: MoveParams,
): { readonly it: AnyMove; readonly spec: MoveSpec } | null {
  const it = MOVES.of(view);
  const moving = movingOf(model);
  return it && moving ? { it, spec: move ?? usualOf(it, moving) } : null;
}

/** What a move comes to; null where nothing is asked for yet. `own` are the instruments that it may go to. */
const comesTo = weakMapMemoize(
  (
    model: Model,
    word: string,
    prefer: Settings['spelling'],
    own: readonly KeptInstrument[],
  ): Result<Outcome> | null => {
    const { instrument: on } = model.state;
    const instrument = (to: string): Instrument | null => targetOf(to, on, own)?.instrument ?? null;
    return moved(movingOf(model)!, JSON.parse(word) as MoveSpec, { prefer, instrument });
  },
);
export const outcomeOf = (
  model: Model,
  spec: MoveSpec,
  settings: Settings,
  own: readonly KeptInstrument[],
): Result<Outcome> | null => comesTo(model, JSON.stringify(spec), settings.spelling, own);

const NONE: readonly KeptInstrument[] = [];
/** What the neck can show of a move: what it comes to on the same strings. */
export function onThisNeck(model: Model, params: MoveParams, settings: Settings): Outcome | null {
  const now = asked(model, params);
  const outcome = now && outcomeOf(model, now.spec, settings, NONE);
  return outcome?.ok && outcome.value.instrument === model.state.instrument ? outcome.value : null;
}

/** The chart as it would be after a move. */
export const afterOf = weakMapMemoize((model: Model, outcome: Outcome, settings: Settings): Model =>
  modelOf(applied(model.state, outcome, settings), settings),
);

/** What the neck shows of a move that is not applied. */
export function insteadOf(model: Model, params: MoveParams, settings: Settings): Instead | null {
  const outcome = onThisNeck(model, params, settings);
  return outcome && { said: keySaid(outcome.key), model: afterOf(model, outcome, settings) };
}

/** The layout that suits a scale on a neck best, with the reason; null where none fits. */
export const suitedBest = weakMapMemoize(
  ({ neck, key }: Model, spanMm: number): Suited | null =>
    rankLayouts(neck, key, spanMm).find((r) => Number.isFinite(r.strain)) ?? null,
);

/** The window of the fourths pattern over the chart's root. */
export const windowOf = (model: Model, { before }: MoveParams): Result<FourthsWindow> =>
  fourthsWindow(model.neck, model.key, model.state.at, before);

/** The frets that a narrow screen shows: of the position before and after, as the way of a move can only be seen whole. */
export function fretsOf(model: Model, params: MoveParams): readonly [number, number] | null {
  const { front, neck } = model;
  const to = onThisNeck(model, params, DEFAULT_SETTINGS)?.spots.flatMap((s) => (s.to ? [s.to.fret] : []));
  if (!front || !to?.length) return null;
  const { lowFret, highFret } = front.position;
  return [Math.max(0, Math.min(lowFret, ...to) - 1), Math.min(neck.frets, Math.max(highFret, ...to) + 1)];
}

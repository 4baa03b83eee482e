import { type Settings } from '@crow-ladder/contract';
import {
  capoFor,
  chooseRoot,
  type FourthsWindow,
  fourthsWindow,
  type Key,
  mod,
  ok,
  type Outcome,
  parallelKeys,
  pitchClass,
  rankLayouts,
  relativeKeys,
  type Result,
  type Suited,
  toKey,
  toParallel,
  toRelative,
  toStrings,
} from '@crow-ladder/core';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { applied, type Model, modelOf, movingOf } from '../../model/model.ts';
import { type MoveParams } from './params.ts';

/** The modes that share the notes, and those that share the root. */
export const modesOf = weakMapMemoize((key: Key) => ({ notes: relativeKeys(key), root: parallelKeys(key) }));

/** The key so many half steps from the present one, in its easier spelling. */
const keyAway = ({ key }: Model, by: number, prefer: Settings['spelling']): Key => ({
  root: mod(by, 12) ? chooseRoot(mod(pitchClass(key.root) + by, 12), key.scale, prefer).root : key.root,
  scale: key.scale,
});

/** The twelve keys by half steps up from the present one. */
export const keysAway = weakMapMemoize((model: Model, prefer: Settings['spelling']): readonly Key[] =>
  Array.from({ length: 12 }, (_, by) => keyAway(model, by, prefer)),
);

/** What the move comes to that is looked at; null where nothing is to be moved yet. */
export const outcomeOf = weakMapMemoize(
  (model: Model, params: MoveParams, settings: Settings): Result<Outcome> | null => {
    const moving = movingOf(model);
    if (!moving) return null;
    const { by, octaves, mode, string, keepKey } = params;
    const prefer = settings.spelling;
    switch (params.view) {
      case 'key':
        return by ? ok(toKey(moving, { by, prefer, octaves })) : null;
      case 'mode': {
        const to = mode && modesOf(model.key)[mode.same][mode.to];
        if (!to) return null;
        return ok(mode.same === 'notes' ? toRelative(moving, to) : toParallel(moving, to));
      }
      case 'strings':
        return string === null || string > model.neck.open.length || string === model.state.at.string
          ? null
          : toStrings(moving, { string, keepKey, prefer });
      case 'capo':
        return capoFor(moving, keysAway(model, prefer)[params.capoTo]!.root, params.mostCapo);
      default:
        return null;
    }
  },
);

/** The chart as it would be after a move. */
export const afterOf = weakMapMemoize((model: Model, outcome: Outcome, settings: Settings): Model =>
  modelOf(applied(model.state, outcome, settings), settings),
);

/** The layout that suits a scale on a neck best, with the reason; null where none fits. */
export const suitedBest = weakMapMemoize(
  ({ neck, key }: Model, spanMm: number): Suited | null =>
    rankLayouts(neck, key, spanMm).find((r) => Number.isFinite(r.strain)) ?? null,
);

/** The window of the fourths pattern over the chart's root. */
export const windowOf = (model: Model, { before }: MoveParams): Result<FourthsWindow> =>
  fourthsWindow(model.neck, model.key, model.state.at, before);

/** The frets that a narrow screen shows: of the position before and after. */
export function fretsOf(model: Model, params: MoveParams): readonly [number, number] | null {
  const { front, neck } = model;
  if (!front) return null;
  if (params.view === 'key' || params.view === 'strings') {
    // The way of a move can only be seen whole; which way it goes is told by the half steps.
    const { lowFret, highFret } = front.position;
    const [low, high] = [Math.min(lowFret, lowFret + params.by), Math.max(highFret, highFret + params.by)];
    return low < 0 || high > neck.frets
      ? [0, neck.frets]
      : [Math.max(0, low - 1), Math.min(neck.frets, high + 1)];
  }
  return null;
}

import { usualOf } from '@crow-ladder/core/kinds';
import {
  parseFormula,
  type Place,
  type Position,
  type Spot,
  spotsOf,
  stepsOf,
  stepText,
} from '@crow-ladder/core';
import { inPosition, type Layout, layOut, pair, single } from '@crow-ladder/core/layouts';
import { type Fingering, type Route } from '@crow-ladder/core/run';
import { sourceOf } from '@crow-ladder/core/sources';
import { type Model } from '../../model/model.ts';
import { type FormulaParams, type Stage } from './params.ts';

/** The formula as it stands in its field. */
export const formulaOf = ({ scale }: Model, { typed }: FormulaParams): string =>
  typed?.scale === scale.id ? typed.text : stepText(scale);

/** Typed steps, in half steps, that miss the octave: on one string they are shown instead of the scale. */
export function miscounted(model: Model, params: FormulaParams): readonly number[] | null {
  if (!params.typed || params.stage !== 'single') return null;
  const text = formulaOf(model, params);
  const read = parseFormula(text);
  return !read.ok && read.error.code === 'formula.octave' ? stepsOf(text) : null;
}

/** The frets that steps lead over, from the root spot up its string. */
export function counted({ state }: Model, steps: readonly number[]): readonly number[] {
  return steps.reduce<number[]>((so, step) => [...so, so.at(-1)! + step], [state.at.fret]);
}

/** A formula laid out on the neck. */
export interface LaidOut {
  /** Rising; the first octave comes first. */
  readonly rising: Route;
  /** In the order of play, with its fingers. */
  readonly fingering: Fingering;
  /** Spots of the place that the run leaves out: below its first note. */
  readonly rest: readonly Spot[];
  /** Where the notes of the one-string run have gone, note by note. */
  readonly moved: readonly { readonly from: Place; readonly to: Spot }[];
  readonly problem: string | null;
}

const NO_ROOM =
  'There is no room for an octave from here: put the root lower on this string, or on another one.';
const LAYOUTS: Readonly<Record<Stage, Layout>> = { single, pair, position: inPosition };

/** The place of a stage that lies nearest to the root, or why there is none. */
function placeOf({ neck, key, scale, state }: Model, stage: Stage, start: number): Position | string {
  const { at } = state;
  const usual = usualOf(LAYOUTS[stage], { scale, string: at.string, strings: neck.open.length });
  const found = layOut(neck, key, stage === 'position' ? { ...usual, every: true } : usual);
  if (!found.ok) return found.error.message;
  // A position is found by its hand, where a stretch weighs as much as two frets; the others by their first note.
  const far = (p: Position): number =>
    Math.abs((p.indexFret ?? p.spots[0]!.fret) - at.fret) + 2 * (p.stretches ?? 0);
  return (
    found.value
      .filter((p) => p.indexFret !== undefined || p.start === start)
      .sort((a, b) => far(a) - far(b) || a.index - b.index)[0] ?? NO_ROOM
  );
}

/** On one string the run goes on downward below its first note, to the open string. */
function below(model: Model, stage: Stage, first: Spot | undefined): readonly Spot[] {
  if (stage !== 'single' || !first) return [];
  return spotsOf({ ...model.neck, rising: [first.string] }, model.key).filter((s) => s.fret < first.fret);
}

/** Lays a formula out. */
export function laidOut(model: Model, params: FormulaParams): LaidOut {
  const { neck, scale, state } = model;
  const { stage, down } = params;
  const start = Math.min(params.start, scale.degrees.length - 1);
  const place = placeOf(model, stage, start);
  const spots = typeof place === 'string' ? [] : place.spots;
  const first = Math.max(
    0,
    spots.findIndex((s) => s.degree === start),
  );
  const rising = spots.slice(first);
  const whole = down ? [...below(model, stage, rising[0]), ...rising] : rising;
  const source = sourceOf(neck, whole, model.hand);
  const { string } = state.at;
  const open = neck.open[string - 1]!;
  return {
    rising,
    fingering: down ? source.down() : source.up,
    rest: spots.slice(0, first),
    moved: rising.slice(0, scale.degrees.length + 1).flatMap((to) => {
      const fret = to.midi - open;
      return to.string === string || fret < 0 || fret > neck.frets ? [] : [{ from: { string, fret }, to }];
    }),
    problem: typeof place === 'string' ? place : null,
  };
}

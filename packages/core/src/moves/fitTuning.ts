import { type Instrument } from '../instrument.ts';
import { fittedTo, layOut } from '../layouts/registry.ts';
import { type LayoutSpec } from '../layouts/layout.ts';
import { type Neck, neckOf } from '../neck.ts';
import { positionSource } from '../sources/position.ts';
import { type HandOptions } from '../run/grips.ts';
import { degreeIndex, type Key } from '../scale.ts';

/** A shape that a tuning is sought for: a key in a layout. */
export interface FitShape {
  readonly key: Key;
  readonly layout: LayoutSpec;
}
/** A tuning that is tried. */
export interface FitTuning {
  readonly name: string;
  /** From the lowest string, MIDI numbers. */
  readonly tuning: readonly number[];
}

/**
 * What a tuning costs for a shape, as this project judges it: in shifts of the hand and stretches of its easiest position, in
 * half steps of retuning; an open string that belongs to the scale saves something.
 */
export const FIT_COST = { shift: 1, stretch: 0.7, fret: 0.3, halfStep: 0.15, open: 0.25 } as const;

/** How a tuning serves shapes, summed over them. */
export interface Fitted {
  readonly name: string;
  readonly tuning: readonly number[];
  /** Infinite where a shape does not fit. */
  readonly cost: number;
  readonly shifts: number;
  readonly stretches: number;
  /** Frets of the widest reach on a string beyond one finger a fret. */
  readonly over: number;
  /** Open strings that belong to a scale, of all open strings. */
  readonly open: readonly [number, number];
  /** Half steps that all strings together are retuned by. */
  readonly halfSteps: number;
  /** Why it does not fit; null where it does. */
  readonly why: string | null;
}

/** What the easiest position of a shape asks of the hand on a neck; the reason where there is none. */
function easiest(neck: Neck, { key, layout }: FitShape, hand: HandOptions) {
  const laid = layOut(neck, key, fittedTo(layout, neck.open.length));
  if (!laid.ok) return laid.error.message;
  const asked = laid.value.map((p) => {
    const { shifts, stretches } = positionSource(neck, p, hand).up;
    const over = Math.max(0, p.reach - 3);
    return {
      shifts,
      stretches,
      over,
      cost: FIT_COST.shift * shifts + FIT_COST.stretch * stretches + FIT_COST.fret * over,
    };
  });
  return asked.sort((a, b) => a.cost - b.cost)[0]!;
}

/**
 * How one tuning serves the shapes, strung on an instrument.
 *
 * @example fitOf(tuningById('drop-d'), [{ key: A, layout: { kind: 'count', counts: [2] } }], moving.instrument, hand).halfSteps // 2
 */
export function fitOf(
  { name, tuning }: FitTuning,
  shapes: readonly FitShape[],
  on: Instrument,
  hand: HandOptions,
): Fitted {
  const neck = neckOf({ ...on, tuning });
  const halfSteps =
    tuning.length === on.tuning.length
      ? tuning.reduce((sum, midi, i) => sum + Math.abs(midi - on.tuning[i]!), 0)
      : 0;
  const none = { name, tuning, halfSteps, shifts: 0, stretches: 0, over: 0, open: [0, 0] as const };
  let so: Fitted = { ...none, cost: FIT_COST.halfStep * halfSteps, why: null };
  for (const shape of shapes) {
    const asked = easiest(neck, shape, hand);
    if (typeof asked === 'string') return { ...none, cost: Infinity, why: asked };
    const open = neck.open.filter((midi) => degreeIndex(shape.key, midi) >= 0).length;
    so = {
      ...so,
      cost: so.cost + asked.cost - FIT_COST.open * open,
      shifts: so.shifts + asked.shifts,
      stretches: so.stretches + asked.stretches,
      over: so.over + asked.over,
      open: [so.open[0] + open, so.open[1] + neck.open.length],
    };
  }
  return so;
}

/**
 * The tunings by how well the shapes lie on them, the best first. `onTried` is told how many were tried.
 *
 * @example fitTunings([tuningById('drop-d')], [{ key: A, layout: { kind: 'count', counts: [2] } }], moving.instrument, hand).length // 1
 */
export function fitTunings(
  tunings: readonly FitTuning[],
  shapes: readonly FitShape[],
  on: Instrument,
  hand: HandOptions,
  onTried?: (tried: number) => void,
): readonly Fitted[] {
  return tunings
    .map((t, i) => {
      const fitted = fitOf(t, shapes, on, hand);
      onTried?.(i + 1);
      return fitted;
    })
    .sort((a, b) => (a.cost === b.cost ? a.halfSteps - b.halfSteps : a.cost - b.cost));
}

import {
  type Place,
  pitchAt,
  type PlacedSpot,
  type Position,
  positionOf,
  type Refusal,
  type Result,
} from '@crow-ladder/core';
import {
  type AnchorNet,
  anchorNet,
  type Hand,
  holdersOf,
  parseGrip,
  regionsOf,
  type RootHeld,
} from '@crow-ladder/core/ladder';
import { octaveIn } from '@crow-ladder/core/layouts';
import { type Fingering } from '@crow-ladder/core/run';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from '../../model/model.ts';
import { climbed } from './climbed.ts';
import { type LadderParams } from './params.ts';
import { pickedPlan } from './planning.ts';

/** The position in front and the one that it is compared with, in neck order; null where there are not two. */
export function pairOf(model: Model, { other }: LadderParams): readonly [Position, Position] | null {
  const { front, positions } = model;
  if (!front || !positions.ok) return null;
  const all = positions.value;
  const asked = other && positionOf(all, other);
  const { index } = front.position;
  const beside = asked && asked.index !== index ? asked : (all[index + 1] ?? all[index - 1]);
  if (!beside) return null;
  return beside.index < index ? [beside, front.position] : [front.position, beside];
}

/** The frets that a narrow screen shows: of both positions that are compared, those that a way uses, or the whole neck where it is the subject. */
export function fretsOf(model: Model, params: LadderParams): readonly [number, number] | null {
  const { frets } = model.neck;
  const around = (all: readonly number[]): readonly [number, number] | null =>
    all.length ? [Math.max(0, Math.min(...all) - 1), Math.min(frets, Math.max(...all) + 1)] : null;
  const used = (steps: Fingering['steps'] | undefined): readonly [number, number] | null =>
    around((steps ?? []).map(({ spot }) => spot.fret));
  switch (params.view) {
    case 'roots':
    case 'regions':
      return [0, frets];
    case 'climbs': {
      const now = climbed(model, params);
      return used(now?.played.ok ? now.played.value.fingering.steps : undefined);
    }
    case 'plan':
      return used(pickedPlan(model, params)?.steps);
    case 'seam':
      return around((pairOf(model, params) ?? []).flatMap((p) => [p.lowFret, p.highFret]));
    default:
      return null;
  }
}

/** The fingers of any position, upward, as the player uses the hand. */
export const fingersOf = (model: Model, position: Position): Fingering => model.source(position).up;

/** The finger that takes a place in a position; 0 for an open string, undefined where the position does not hold it. */
export const fingerAt = (model: Model, position: Position, { string, fret }: Place): number | undefined =>
  fingersOf(model, position).steps.find(({ spot }) => spot.string === string && spot.fret === fret)?.finger;

export const netOf: (neck: Model['neck'], key: Model['key']) => AnchorNet = weakMapMemoize(anchorNet);

/** The positions that hold the chart's root, with what lies beside it. */
export const rootHeld = (model: Model): readonly RootHeld[] =>
  model.positions.ok ? holdersOf(model.positions.value, model.state.at) : [];

/** Where the hand is, or why the chord that was typed says nothing. */
export function handOf({ neck }: Model, { frets, strings, chord }: LadderParams): Result<Hand, Refusal> {
  if (chord.trim()) return parseGrip(chord, neck);
  const most = neck.open.length;
  const on: readonly [number, number] = strings
    ? [Math.min(strings[0], most), Math.min(strings[1], most)]
    : [1, most];
  return { ok: true, value: { frets, strings: on, held: null } };
}

/** A region of the neck with the octave from the chart's root in it, where it has room for one within a hand. */
export interface RegionSeen {
  readonly from: number;
  readonly to: number;
  readonly octave: readonly PlacedSpot[] | null;
}

/** The regions, each with the same octave: the one that most of them have room for, the chart's own before others. */
export const regionsSeen = weakMapMemoize((model: Model, params: LadderParams): readonly RegionSeen[] => {
  const { neck, key, state } = model;
  const bands = regionsOf(neck, params.cuts);
  const own = pitchAt(neck, state.at.string, state.at.fret);
  const roots = [...new Set(netOf(neck, key).roots.map((r) => r.midi))];
  const laid = (root: number): readonly RegionSeen[] =>
    bands.map(([from, to]) => ({ from, to, octave: octaveIn(neck, key, root, [from, to]) }));
  const fits = (seen: readonly RegionSeen[]): number => seen.filter((r) => r.octave).length;
  return roots
    .sort((a, b) => Math.abs(a - own) - Math.abs(b - own))
    .map(laid)
    .reduce((best, seen) => (fits(seen) > fits(best) ? seen : best), laid(own));
});

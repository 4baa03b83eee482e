import { type ChartState } from '@crow-ladder/contract';
import {
  type Alteration,
  articulate, climb, type Climb, type Climbing, climbOf, CLIMBS, type ClimbSpec, type Fingering, inTime, moveTo, type PositionRef, refOf, type Refusal,
  type Result, type Run, mod, scalesWithOffsets, signatureOf, usualClimb,
} from '@crow-ladder/core'; // prettier-ignore
import { weakMapMemoize } from '@reduxjs/toolkit';
import { isClimb } from '../../model/addressWords.ts';
import { type Model } from '../../model/model.ts';
import { type LadderParams } from './params.ts';

/** What a climb sets out from; null where no position is in front. */
export const climbingOf = weakMapMemoize(({ neck, key, positions, front, state }: Model): Climbing | null =>
  front && positions.ok
    ? { neck, key, positions: positions.value, front: front.position, root: state.at }
    : null,
);

/** A climb as it is played: its notes with their fingers, or why there is no way. */
export interface Climbed {
  readonly climb: Climb;
  readonly spec: ClimbSpec;
  readonly played: Result<{ readonly fingering: Fingering; readonly run: Run }, Refusal>;
}

/** The climb that is looked at; null where no position is in front. */
export const climbed = weakMapMemoize((model: Model, params: LadderParams): Climbed | null => {
  const climbing = climbingOf(model);
  if (!climbing) return null;
  const asked = (params.climb && climbOf(params.climb.kind)) ?? CLIMBS[0]!;
  const spec = params.climb ?? usualClimb(asked, climbing);
  const route = climb(climbing, spec, params);
  if (!route.ok) return { climb: asked, spec, played: route };
  const fingering = model.fingers(route.value);
  const run = inTime(articulate(fingering.steps, params.slurred ? 'slurred' : 'picked'));
  return { climb: asked, spec, played: { ok: true, value: { fingering, run } } };
});

/** The scale that a climb's altered degrees make: its name, or null where it is none of the catalogue; undefined where none is altered. */
export function alteredScale({ scale }: Model, spec: ClimbSpec): string | null | undefined {
  const altered = (spec['altered'] ?? []) as readonly Alteration[];
  if (!altered.length) return undefined;
  const by = (degree: number): number => altered.find((a) => a.degree === degree)?.by ?? 0;
  const offsets = scale.offsets.map((o, degree) => mod(o + by(degree), 12)).sort((a, b) => a - b);
  return scalesWithOffsets(offsets)[0]?.name ?? null;
}

/** A place of the hand in a climb: the notes that it takes there, and how it came there. */
export interface Stair {
  /** Fret under the index finger. */
  readonly hand: number;
  readonly from: number;
  readonly to: number;
  readonly slid: boolean;
}

/** The places of the hand in order; notes that follow each other without a move stand on one stair. */
export function stairsOf({ steps }: Fingering): readonly Stair[] {
  const stairs: { hand: number; from: number; to: number; slid: boolean }[] = [];
  steps.forEach((step, i) => {
    const last = stairs.at(-1);
    if (last && last.hand === step.hand) last.to = i;
    else stairs.push({ hand: step.hand, from: i, to: i, slid: moveTo(steps, i) === 'slide' });
  });
  return stairs;
}

/** How the way down is fingered otherwise than the way up: both signatures where they are not the same backwards. */
export const turned = weakMapMemoize(
  (model: Model, params: LadderParams): { readonly up: string; readonly down: string } | null => {
    const there = climbed(model, { ...params, direction: 'up' });
    const back = climbed(model, { ...params, direction: 'down' });
    if (!there?.played.ok || !back?.played.ok) return null;
    const [up, down] = [there.played.value.fingering.steps, back.played.value.fingering.steps];
    const same = up.every(({ finger, hand }, i) => {
      const other = down[down.length - 1 - i]!;
      return other.finger === finger && other.hand === hand;
    });
    return same ? null : { up: signatureOf(up), down: signatureOf(down) };
  },
);

/** A climb kept with the chart under a name. Where it begins is counted from the root, so that it moves with the key. */
export interface KeptClimb {
  readonly type: 'climb';
  readonly name: string;
  readonly climb: ClimbSpec;
  readonly direction: LadderParams['direction'];
  readonly topTwice: boolean;
  readonly slurred: boolean;
  /** The position in front: its first degree, and its lowest fret counted from the root's place. */
  readonly start: number;
  readonly low: number;
}

/** The kept climbs of a chart with their places among its runs; what is something else is passed over. */
export const keptClimbs = ({
  runs,
}: ChartState): readonly { readonly at: number; readonly kept: KeptClimb }[] =>
  runs.flatMap((run, at) => {
    const it = run as unknown as Partial<KeptClimb>;
    const whole =
      it.type === 'climb' && typeof it.name === 'string' && isClimb(it.climb) && Number.isInteger(it.start);
    return whole ? [{ at, kept: run as unknown as KeptClimb }] : [];
  });

/** A climb as it is kept. */
export function toKeep(model: Model, params: LadderParams, name: string): KeptClimb | null {
  const now = climbed(model, params);
  const { front, state } = model;
  if (!now || !front) return null;
  const { direction, topTwice, slurred } = params;
  const { start, lowFret } = front.position;
  return {
    type: 'climb',
    name,
    climb: now.spec,
    direction,
    topTwice,
    slurred,
    start,
    low: lowFret - state.at.fret,
  };
}

/** The position that a kept climb begins in: the one of its degree that lies nearest to where it was kept. */
export function beginOf({ positions, state }: Model, { start, low }: KeptClimb): PositionRef | null {
  if (!positions.ok) return null;
  const far = (fret: number): number => Math.abs(fret - state.at.fret - low);
  const [nearest] = positions.value
    .filter((p) => p.start === start)
    .sort((a, b) => far(a.lowFret) - far(b.lowFret));
  return nearest ? refOf(positions.value, nearest) : null;
}

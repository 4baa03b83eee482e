import { usualOf } from '@crow-ladder/core/kinds';
import { type Refusal, type Result } from '@crow-ladder/core';
import { type Climb, CLIMBS, type ClimbSpec } from '@crow-ladder/core/climbs';
import {
  type Fingered,
  type Fingering,
  moveTo,
  type Run,
  signatureOf,
  type Strike,
} from '@crow-ladder/core/run';
import { wayThrough } from '@crow-ladder/core/sources';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { climbingOf } from '../../model/climbing.ts';
import { type Model } from '../../model/model.ts';
import { sourceOfClimb } from '../../model/sources.ts';
import { struck } from '../../model/way.ts';
import { type LadderParams } from './params.ts';

/** A climb as it is played: its notes with their fingers, or why there is no way. */
export type PlayedClimb = Result<{ readonly fingering: Fingering; readonly run: Run }, Refusal>;
type Struck = Pick<LadderParams, 'direction' | 'topTwice' | 'touch'>;

/** By the climb in words, so that a step along it computes nothing. */
const playedFor = weakMapMemoize(
  (
    model: Model,
    spec: string,
    direction: Struck['direction'],
    topTwice: boolean,
    touch: Strike,
  ): PlayedClimb => {
    const source = sourceOfClimb(model, JSON.parse(spec) as ClimbSpec);
    if (!source.ok) return source;
    return struck(model, wayThrough(source.value, direction, topTwice), touch);
  },
);
const played = (model: Model, spec: ClimbSpec, { direction, topTwice, touch }: Struck): PlayedClimb =>
  playedFor(model, JSON.stringify(spec), direction, topTwice, touch);

/** The climb that is looked at, with its options and its notes; null where no position is in front. */
export function climbed(
  model: Model,
  params: LadderParams,
): { readonly climb: Climb; readonly spec: ClimbSpec; readonly played: PlayedClimb } | null {
  const climbing = climbingOf(model);
  if (!climbing) return null;
  const asked = (params.climb && CLIMBS.of(params.climb.kind)) ?? CLIMBS.all()[0]!;
  const spec = params.climb ?? usualOf(asked, climbing);
  return { climb: asked, spec, played: played(model, spec, params) };
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
export function stairsOf(steps: readonly Fingered[]): readonly Stair[] {
  const stairs: { hand: number; from: number; to: number; slid: boolean }[] = [];
  steps.forEach((step, i) => {
    const last = stairs.at(-1);
    if (last && last.hand === step.hand) last.to = i;
    else stairs.push({ hand: step.hand, from: i, to: i, slid: moveTo(steps, i) === 'slide' });
  });
  return stairs;
}

/** How the way down is fingered otherwise than the way up: both signatures where they are not the same backwards. */
export function turned(
  model: Model,
  spec: ClimbSpec,
  params: LadderParams,
): { readonly up: string; readonly down: string } | null {
  const [there, back] = (['up', 'down'] as const).map((direction) =>
    played(model, spec, { ...params, direction }),
  );
  if (!there?.ok || !back?.ok) return null;
  const [up, down] = [there.value.fingering.steps, back.value.fingering.steps];
  const same = up.every(({ finger, hand }, i) => {
    const other = down[down.length - 1 - i]!;
    return other.finger === finger && other.hand === hand;
  });
  return same ? null : { up: signatureOf(up), down: signatureOf(down) };
}

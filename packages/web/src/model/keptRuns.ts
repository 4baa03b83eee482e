import { type ChartState } from '@crow-ladder/contract';
import {
  type ClimbSpec,
  type Direction,
  mod,
  note,
  pitchClass,
  type Place,
  type PlanEnd,
  type Position,
  refOf,
  type Strike,
} from '@crow-ladder/core';
import { isClimb } from './addressWords.ts';
import { type Model } from './model.ts';
import { type PlanAsked, planFrom } from './planAsked.ts';

/** What is kept with every climb: its name, and the root that it was kept with, so that it moves with the key. */
interface Named {
  readonly name: string;
  readonly at: Place;
  readonly root: string;
}
/** A climb kept with the chart. */
interface KeptClimb extends Named {
  readonly type: 'climb';
  readonly climb: ClimbSpec;
  readonly direction: Direction;
  readonly topTwice: boolean;
  readonly touch: Strike;
  /** The position in front: its first degree and its lowest fret. */
  readonly start: number;
  readonly low: number;
}
/** A planned climb kept with the chart: what was asked for, in the word of an address, and which of the ways. */
interface KeptPlan extends Named {
  readonly type: 'plan';
  readonly plan: string;
  readonly pick: number;
}
export type KeptRun = KeptClimb | KeptPlan;

/** A run as it was kept, or null where it is something else. Kept before the root was, it is counted from the chart's. */
function readKept({ at, key }: ChartState, run: object): KeptRun | null {
  const it = run as Partial<KeptClimb> &
    Partial<Omit<KeptPlan, 'type'>> & { readonly slurred?: boolean; readonly type?: unknown };
  if (typeof it.name !== 'string') return null;
  const named = { name: it.name, at: it.at ?? at, root: it.root ?? key.root };
  if (it.type === ('plan' as unknown) && typeof it.plan === 'string')
    return { ...named, type: 'plan', plan: it.plan, pick: it.pick ?? 0 };
  if (it.type !== 'climb' || !isClimb(it.climb) || !Number.isInteger(it.start)) return null;
  const { climb, direction = 'up', topTwice = false, touch = it.slurred ? 'slurred' : 'picked' } = it;
  const low = (it.low ?? 0) + (it.at ? 0 : at.fret);
  return { ...named, type: 'climb', climb, direction, topTwice, touch, start: it.start!, low };
}

/** The kept climbs of a chart with their places among its runs; what is something else is passed over. */
export const keptRuns = (state: ChartState): readonly { readonly at: number; readonly kept: KeptRun }[] =>
  state.runs.flatMap((run, at) => {
    const kept = readKept(state, run);
    return kept ? [{ at, kept }] : [];
  });

/** Where a kept climb lies now: the key moved since, everything lies as much further. */
export function movedWithKey({ neck, positions, state }: Model, kept: KeptRun) {
  const all = positions.ok ? positions.value : [];
  // Half steps from the key that it was kept in, the shorter way.
  const by = mod(pitchClass(note(state.key.root)) - pitchClass(note(kept.root)) + 5, 12) - 5;
  const moved = (fret: number): number => {
    const to = fret + by;
    return to < 0 ? to + 12 : to > neck.frets ? to - 12 : to;
  };
  const place = ({ string, fret }: Place): Place => ({
    string: Math.min(string, neck.open.length),
    fret: moved(fret),
  });
  /** The position that begins on a degree, nearest to a fret of then. */
  const nearest = (start: number, low: number): Position | null => {
    const far = (fret: number): number => Math.abs(fret - low - by);
    return all.filter((p) => p.start === start).sort((a, b) => far(a.lowFret) - far(b.lowFret))[0] ?? null;
  };
  const end = (it: PlanEnd): PlanEnd => {
    if (it.at === 'place') return { ...it, place: place(it.place) };
    if (it.at !== 'position') return it;
    const position = nearest(it.ref.start, it.ref.low);
    return position ? { ...it, ref: refOf(all, position) } : it;
  };
  const planned = ({ plan }: KeptPlan): PlanAsked => {
    const asked = planFrom(plan);
    return { ...asked, from: end(asked.from), to: end(asked.to) };
  };
  return { place, nearest, planned };
}

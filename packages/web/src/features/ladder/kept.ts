import { type ChartState } from '@crow-ladder/contract';
import { type ClimbSpec, mod, note, pitchClass, type Place, type PlanEnd, type PositionRef, refOf } from '@crow-ladder/core'; // prettier-ignore
import { isClimb } from '../../model/addressWords.ts';
import { type Model } from '../../model/model.ts';
import { type Change, withFront } from '../../model/moves.ts';
import { type PlanAsked, planFrom, planWord } from './asked.ts';
import { climbed } from './climbed.ts';
import { type Strike } from '../../model/way.ts';
import { type LadderParams } from './params.ts';

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
  readonly direction: LadderParams['direction'];
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
  const it = run as Partial<KeptClimb> & Partial<Omit<KeptPlan, 'type'>> & { readonly slurred?: boolean; readonly type?: unknown }; // prettier-ignore
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

/** The climb that is looked at as it is kept; null where there is none. */
export function toKeep(model: Model, params: LadderParams, name: string): KeptRun | null {
  const { front, state } = model;
  const named: Named = { name, at: state.at, root: state.key.root };
  if (params.view === 'plan')
    return { ...named, type: 'plan', plan: planWord(params.plan), pick: params.pick };
  const now = climbed(model, params);
  if (!now || !front) return null;
  const { direction, topTwice, touch } = params;
  const { start, lowFret: low } = front.position;
  return { ...named, type: 'climb', climb: now.spec, direction, topTwice, touch, start, low };
}

/** What shows a kept climb: a change of the chart and the task's parameters. The key moved, everything lies as much further. */
export function showing(model: Model, params: LadderParams, kept: KeptRun): readonly [Change, LadderParams] {
  const { neck, positions, state } = model;
  const all = positions.ok ? positions.value : [];
  // Half steps from the key that it was kept in, the shorter way.
  const by = mod(pitchClass(note(state.key.root)) - pitchClass(note(kept.root)) + 5, 12) - 5;
  const moved = (fret: number): number => {
    const to = fret + by;
    return to < 0 ? to + 12 : to > neck.frets ? to - 12 : to;
  };
  const place = ({ string, fret }: Place): Place => ({ string: Math.min(string, neck.open.length), fret: moved(fret) }); // prettier-ignore
  const nearest = (start: number, low: number): PositionRef | null => {
    const far = (fret: number): number => Math.abs(fret - low - by);
    const [it] = all.filter((p) => p.start === start).sort((a, b) => far(a.lowFret) - far(b.lowFret));
    return it ? refOf(all, it) : null;
  };
  const rooted = (s: ChartState): ChartState => ({ ...s, at: place(kept.at) });
  if (kept.type === 'climb') {
    const { climb, direction, topTwice, touch, start, low } = kept;
    const front = nearest(start, low);
    return [
      (s) => withFront(rooted(s), front),
      { ...params, view: 'climbs', climb, direction, topTwice, touch, step: 0 },
    ];
  }
  const end = (it: PlanEnd): PlanEnd =>
    it.at === 'place'
      ? { ...it, place: place(it.place) }
      : it.at === 'position'
        ? { ...it, ref: nearest(it.ref.start, it.ref.low) ?? it.ref }
        : it;
  const asked: PlanAsked = planFrom(kept.plan);
  const plan = { ...asked, from: end(asked.from), to: end(asked.to) };
  return [rooted, { ...params, view: 'plan', plan, pick: kept.pick, step: 0 }];
}

import { type ChartState, type KeptPlan, type KeptRun, type PlanAsked } from '@crow-ladder/contract';
import { note, pitchClass, type Place, type Position, refOf, shorterWay } from '@crow-ladder/core';
import { type PlanEnd } from '@crow-ladder/core/plan';
import { type Model } from './model.ts';

/** The kept climbs of a chart with their places among its runs; what cannot be read is passed over. */
export const keptRuns = ({ runs }: ChartState): readonly { readonly at: number; readonly kept: KeptRun }[] =>
  runs.flatMap((kept, at) => (kept.type === 'unread' ? [] : [{ at, kept }]));

/** Where a kept climb lies now: the key moved since, everything lies as much further. */
export function movedWithKey({ neck, positions, state }: Model, kept: KeptRun) {
  const all = positions.ok ? positions.value : [];
  // Half steps from the key that it was kept in, the shorter way.
  const by = shorterWay(pitchClass(note(kept.root)), pitchClass(note(state.key.root)));
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
  const planned = ({ plan }: KeptPlan): PlanAsked => ({
    ...plan,
    from: end(plan.from),
    to: end(plan.to),
  });
  return { place, nearest, planned };
}

import { type ChartState, type KeptRun } from '@crow-ladder/contract';
import { refOf } from '@crow-ladder/core';
import { movedWithKey } from '../../model/keptRuns.ts';
import { type Model } from '../../model/model.ts';
import { type Change, withFront } from '../../model/moves.ts';
import { climbed } from './climbed.ts';
import { type LadderParams } from './params.ts';
import { pickedPlan } from './planning.ts';

/** The climb that is looked at as it is kept; null where there is none. */
export function toKeep(model: Model, params: LadderParams, name: string): KeptRun | null {
  const { front, state } = model;
  const named = { name, at: state.at, root: state.key.root };
  const { view, plan, pick } = params;
  if (view === 'plan') return pickedPlan(model, params) && { ...named, type: 'plan', plan, pick };
  const now = climbed(model, params);
  if (!now || !front) return null;
  const { direction, topTwice, touch } = params;
  const { start, lowFret: low } = front.position;
  return { ...named, type: 'climb', climb: now.spec, direction, topTwice, touch, start, low };
}

/** What shows a kept climb: a change of the chart and the task's parameters. */
export function showing(model: Model, params: LadderParams, kept: KeptRun): readonly [Change, LadderParams] {
  const { place, nearest, planned } = movedWithKey(model, kept);
  const rooted = (s: ChartState): ChartState => ({ ...s, at: place(kept.at) });
  if (kept.type === 'plan')
    return [rooted, { ...params, view: 'plan', plan: planned(kept), pick: kept.pick, step: 0 }];
  const { climb, direction, topTwice, touch, start, low } = kept;
  const front = nearest(start, low);
  const ref = front && refOf(model.positions.ok ? model.positions.value : [], front);
  return [
    (s) => withFront(rooted(s), ref),
    { ...params, view: 'climbs', climb, direction, topTwice, touch, step: 0 },
  ];
}

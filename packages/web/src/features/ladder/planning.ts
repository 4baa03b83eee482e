import { type LimitName, type Limits, notesBetween, pitchAt, type Planned, type PlanTask, plural, spotsOf } from '@crow-ladder/core'; // prettier-ignore
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from '../../model/model.ts';
import { type LadderParams, type PlanAsked, WAYS } from './params.ts';

/** How many climbs are planned. */
export const PLANS = 3;
/** Notes to a quarter note. */
const EIGHTHS = 2;

function limitsOf({ neck }: Model, asked: PlanAsked): Limits {
  const { reach, mm, strings, least, most, ways, shifts } = asked;
  const many = neck.open.length;
  return {
    ...(reach ? { reach } : {}),
    ...(mm ? { reachMm: mm } : {}),
    ...(strings
      ? { strings: neck.rising.filter((s) => s >= strings[0] && s <= Math.min(strings[1], many)) }
      : {}),
    ...(least > 1 ? { least } : {}),
    ...(most ? { most } : {}),
    ...(ways.length < WAYS.length ? { ways } : {}),
    ...(shifts >= 0 ? { shifts } : {}),
  };
}

/** What is to be planned from the chart's root; null where the neck has nothing above it. */
export const taskOf = weakMapMemoize((model: Model, asked: PlanAsked): PlanTask | null => {
  const { neck, key, state, hand } = model;
  const from = pitchAt(neck, state.at.string, state.at.fret);
  const highest = Math.max(...spotsOf(neck, key).map((s) => s.midi));
  const to = asked.octaves ? Math.min(highest, from + 12 * asked.octaves) : highest;
  const notes = notesBetween(neck, key, state.at, to, asked.there);
  const speed = (asked.tempo / 60) * EIGHTHS;
  return notes.length ? { neck, hand, notes, limits: limitsOf(model, asked), speed } : null;
});
export const taskId = weakMapMemoize((task: PlanTask): string => JSON.stringify(task));

/** The planned climb that is looked at; null where none is there for what is asked now. */
export function pickedPlan(model: Model, { plan, planned, pick }: LadderParams): Planned | null {
  const task = planned && taskOf(model, plan);
  if (!task || planned.id !== taskId(task)) return null;
  return planned.plans[pick] ?? planned.plans[0] ?? null;
}

const stretchSaid = ({ widest }: Planned): string =>
  widest ? `its widest stretch is ${Math.round(widest.mm)} mm, on string ${widest.at.string} fret ${widest.at.fret}` : 'it has no stretch'; // prettier-ignore

/** Where a climb first goes another way than the best one. */
function otherwiseSaid(it: Planned, best: Planned): string {
  const at = it.steps.findIndex((s, i) => s.spot.string !== best.steps[i]!.spot.string);
  if (at >= 0)
    return `note ${at + 1} on string ${it.steps[at]!.spot.string}, not on string ${best.steps[at]!.spot.string}`;
  const moves = (p: Planned): readonly number[] => p.moves.map((m) => m.to + 1);
  const [mine, theirs] = [moves(it), moves(best)];
  const here = mine.find((m) => !theirs.includes(m));
  return here ? `a shift for note ${here}` : `no shift for note ${theirs.find((m) => !mine.includes(m))}`;
}

/** Why a climb ranks where it does: what the easiest asks, and how another one differs from it. */
export function rankSaid(it: Planned, best: Planned): string {
  if (it === best) return `The easiest: ${plural(it.moves.length, 'shift')}; ${stretchSaid(it)}.`;
  const more = it.moves.length - best.moves.length;
  const wider = Math.round((it.widest?.mm ?? 0) - (best.widest?.mm ?? 0));
  const harder = (it.cost - best.cost).toFixed(1);
  const how = [
    ...(more ? [`${plural(Math.abs(more), 'shift')} ${more > 0 ? 'more' : 'fewer'}`] : []),
    ...(wider ? [`the widest stretch ${Math.abs(wider)} mm ${wider > 0 ? 'wider' : 'narrower'}`] : []),
    otherwiseSaid(it, best),
  ];
  return `${harder === '0.0' ? 'As easy' : `Harder by ${harder}`}: ${how.join('; ')}.`;
}

const WAY_SAID = {
  change: 'at a string change',
  slide: 'by a slide',
  close: 'closing up on the string',
  open: 'while a string rings open',
} as const;
const FINGER = ['no finger', 'the index finger', 'the middle finger', 'the ring finger', 'the little finger'];
/** The shifts of a climb: where, how, on which finger, how far. */
export const movesSaid = ({ moves, steps }: Planned): readonly string[] =>
  moves.map(({ to, way, finger, frets, mm }) => {
    const { string, fret } = steps[to]!.spot;
    const far = frets
      ? `, ${plural(Math.abs(frets), 'fret')} ${frets > 0 ? 'up' : 'down'} (${Math.round(mm)} mm)`
      : '';
    return `Note ${to + 1}, to string ${string} ${fret ? `fret ${fret}` : 'open'} with ${FINGER[finger]}: ${WAY_SAID[way]}${far}.`;
  });

/** What the limits are called where they are blamed. */
export const LIMIT_SAID: Readonly<Record<LimitName, string>> = {
  reach: 'the reach in frets',
  reachMm: 'the widest stretch',
  strings: 'the strings',
  least: 'the fewest notes on a string',
  most: 'the most notes on a string',
  ways: 'the kinds of shift',
  shifts: 'the number of shifts',
};

import { WAYS } from '@crow-ladder/contract';
import { list, plural } from '@crow-ladder/core';
import { type LimitName, type Planned, type PlanTask, type Way } from '@crow-ladder/core/plan';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from '../../model/model.ts';
import { FINGERS, handSaid } from '../../model/wording.ts';
import { taskOf } from '../../model/planTask.ts';
import { type LadderParams } from './params.ts';

/** How many climbs are planned. */
export const PLANS = 3;
export const taskId = weakMapMemoize((task: PlanTask): string => JSON.stringify(task));

/** The planned climb that is looked at; null where none is there for what is asked now. */
export function pickedPlan(model: Model, { plan, planned, pick }: LadderParams): Planned | null {
  if (!planned) return null;
  const task = taskOf(model, plan);
  if (!task.ok || planned.id !== taskId(task.value)) return null;
  return planned.plans[pick] ?? planned.plans[0] ?? null;
}

const spanSaid = ({ widest }: Planned): string => (widest ? handSaid(widest) : 'nothing is pressed');

/** Most differences from the best way that are said. */
const MOST_SAID = 3;

/** Where a climb goes another way than the best one: notes on other strings, else shifts for other notes. */
function otherwiseSaid(it: Planned, best: Planned): string {
  const strings: { from: number; to: number; mine: number; theirs: number }[] = [];
  it.steps.forEach(({ spot: { string: mine } }, i) => {
    const theirs = best.steps[i]!.spot.string;
    const last = strings.at(-1);
    if (mine === theirs) return;
    if (last?.to === i - 1 && last.mine === mine && last.theirs === theirs) last.to = i;
    else strings.push({ from: i, to: i, mine, theirs });
  });
  const more = strings.length > MOST_SAID ? ' and more' : '';
  if (strings.length)
    return `${list(
      strings
        .slice(0, MOST_SAID)
        .map(
          ({ from, to, mine, theirs }) =>
            `${from === to ? `note ${from + 1}` : `notes ${from + 1} to ${to + 1}`} on string ${mine}, not ${theirs}`,
        ),
    )}${more}`;
  const moves = (p: Planned): readonly number[] => p.moves.map((m) => m.to + 1);
  const [mine, theirs] = [moves(it), moves(best)];
  const only = (a: readonly number[], b: readonly number[]): string =>
    list(a.filter((m) => !b.includes(m)).map((m) => `note ${m}`));
  const [added, left] = [only(mine, theirs), only(theirs, mine)];
  return [...(added ? [`a shift for ${added}`] : []), ...(left ? [`none for ${left}`] : [])].join(', ');
}

/** Effort that a hand does not feel. */
const SAME_EFFORT = 0.05;

/** Why a climb ranks where it does: what the easiest asks, and how another one differs from it. */
export function rankSaid(it: Planned, best: Planned): string {
  if (it === best) return `The easiest: ${plural(it.moves.length, 'shift')}; ${spanSaid(it)}.`;
  const more = it.moves.length - best.moves.length;
  const wider = Math.round((it.widest?.mm ?? 0) - (best.widest?.mm ?? 0));
  const how = [
    ...(more ? [`${plural(Math.abs(more), 'shift')} ${more > 0 ? 'more' : 'fewer'}`] : []),
    ...(wider > 0 ? [`${wider} mm wider at frets ${it.widest!.frets.join(' to ')}`] : []),
    ...(wider < 0 ? [`its widest place ${-wider} mm narrower`] : []),
    otherwiseSaid(it, best) || 'other fingers at the same places',
  ];
  return `${it.cost - best.cost < SAME_EFFORT ? 'As easy' : 'Harder'}: ${how.join('; ')}.`;
}

const wayName = (way: Way): string => WAYS.find((w) => w.id === way)!.name;
/** The shifts of a climb: where, how, on which finger, how far. */
export const movesSaid = ({ moves, steps }: Planned): readonly string[] =>
  moves.map(({ to, way, finger, frets, mm }) => {
    const { string, fret } = steps[to]!.spot;
    const far = frets
      ? `, ${plural(Math.abs(frets), 'fret')} ${frets > 0 ? 'up' : 'down'} (${Math.round(mm)} mm)`
      : '';
    return `Note ${to + 1}, to string ${string} ${fret ? `fret ${fret}` : 'open'} ${finger ? `with the ${FINGERS[finger]}` : 'with no finger'}: ${wayName(way)}${far}.`;
  });

/** What the limits are called where they are blamed. */
export const LIMIT_SAID: Readonly<Record<LimitName, string>> = {
  reach: 'the reach in frets',
  reachMm: 'the span of the hand in mm',
  closed: 'no open strings',
  strings: 'the strings',
  least: 'the fewest notes on a string',
  most: 'the most notes on a string',
  ways: 'the kinds of shift',
  shifts: 'the number of shifts',
};

import {
  PLAN_AT_FIRST,
  climbFrom,
  climbWord,
  planFrom,
  planWord,
  refFrom,
  refWord,
  type PlanAsked,
} from '@crow-ladder/contract';
import { LIMITS, type PositionRef } from '@crow-ladder/core';
import { type ClimbSpec } from '@crow-ladder/core/climbs';
import { type Planned } from '@crow-ladder/core/plan';
import { type Direction, type Strike, STRIKES } from '@crow-ladder/core/run';
import { type Params } from '../../task/task.ts';

/** What of the ladder is looked at, and how its sentence begins. */
export const VIEWS = [
  { id: 'positions', name: 'All positions', before: 'Show ', said: 'all positions' },
  { id: 'seam', name: 'Two positions', before: '', said: 'Compare' },
  { id: 'roots', name: 'Roots', before: 'Show ', said: 'the roots' },
  { id: 'hand', name: 'From the hand', before: 'Start ', said: 'from the hand' },
  { id: 'regions', name: 'Regions', before: 'Cut the neck into ', said: 'regions' },
  { id: 'climbs', name: 'Climbs', before: '', said: 'Climb' },
  { id: 'plan', name: 'Plan a climb', before: '', said: 'Plan a climb' },
] as const;
export type View = (typeof VIEWS)[number]['id'];

export interface LadderParams {
  readonly view: View;
  /** The position that the one in front is compared with; null is the next one up, or down where there is none. */
  readonly other: PositionRef | null;
  /** Where the hand is: lowest and highest fret, and string numbers; all strings where there are none. */
  readonly frets: readonly [number, number];
  readonly strings: readonly [number, number] | null;
  /** A chord that is held, as it was typed; empty where the hand is given by frets and strings. */
  readonly chord: string;
  /** First fret of every region but the lowest, rising. */
  readonly cuts: readonly number[];
  /** The climb that is looked at; null is the first one with its usual options. */
  readonly climb: ClimbSpec | null;
  readonly direction: Direction;
  /** Whether the note on which a climb turns is struck twice. */
  readonly topTwice: boolean;
  readonly touch: Strike;
  /** Which note of the climb is looked at, from 0. */
  readonly step: number;
  readonly plan: PlanAsked;
  /** What the planner found, with what it was asked; not in the address. */
  readonly planned: { readonly id: string; readonly plans: readonly Planned[] } | null;
  /** Which of the planned climbs is looked at. */
  readonly pick: number;
}

export const AT_FIRST: LadderParams = {
  view: 'positions',
  other: null,
  frets: [5, 8],
  strings: null,
  chord: '',
  cuts: [7],
  climb: null,
  direction: 'up',
  topTwice: false,
  touch: 'picked',
  step: 0,
  plan: PLAN_AT_FIRST,
  planned: null,
  pick: 0,
};
const DIRECTIONS: readonly Direction[] = ['up', 'down', 'both'];
/** Other boundaries, in order along the neck. */
export const withCuts = (params: LadderParams, cuts: readonly number[]): LadderParams => ({
  ...params,
  cuts: [...new Set(cuts)].sort((a, b) => a - b),
});
/** How many regions a neck is cut into at most. */
export const MOST_CUTS = 3;

/** Whole numbers between dots within bounds, or null where there are not as many as asked for. */
function numbers(word: string | null, many: number, [low, high]: readonly [number, number]): number[] | null {
  const all = (word ?? '').split('.').map(Number);
  const fit = all.every((n) => Number.isInteger(n) && n >= low && n <= high);
  return word && fit && (many < 0 ? all.length <= -many : all.length === many) ? all : null;
}
const FRETS = [0, LIMITS.frets[1]] as const;
const STRINGS = [1, LIMITS.strings[1]] as const;
const rising = ([a, b]: readonly number[]): readonly [number, number] => [Math.min(a!, b!), Math.max(a!, b!)];

export const params: Params<LadderParams> = {
  read: (query) => {
    const frets = numbers(query.get('hand'), 2, FRETS);
    const strings = numbers(query.get('on'), 2, STRINGS);
    const other = query.get('with');
    const climb = query.get('climb');
    const step = numbers(query.get('step'), 1, [1, 9999]);
    const cuts = numbers(query.get('cut'), -MOST_CUTS, [1, FRETS[1]]);
    return {
      view: VIEWS.find((v) => v.id === query.get('look'))?.id ?? AT_FIRST.view,
      other: other?.includes('.') && numbers(other, -3, [0, 99]) ? (refFrom(other) as PositionRef) : null,
      frets: frets ? rising(frets) : AT_FIRST.frets,
      strings: strings && rising(strings),
      chord: query.get('chord') ?? '',
      cuts: cuts ? [...new Set(cuts)].sort((a, b) => a - b) : AT_FIRST.cuts,
      climb: climb === null ? null : climbFrom(climb),
      direction: DIRECTIONS.find((d) => d === query.get('way')) ?? 'up',
      topTwice: query.has('twice'),
      touch: STRIKES.find((t) => t.id === query.get('touch'))?.id ?? AT_FIRST.touch,
      step: step ? step[0]! - 1 : 0,
      plan: planFrom(query.get('plan') ?? ''),
      planned: null,
      pick: Math.max(0, (numbers(query.get('pick'), 1, [1, 9])?.[0] ?? 1) - 1),
    };
  },
  write: ({
    view,
    other,
    frets,
    strings,
    chord,
    cuts,
    climb,
    direction,
    topTwice,
    touch,
    step,
    plan,
    pick,
  }) => ({
    look: view === AT_FIRST.view ? null : view,
    with: other && refWord(other),
    hand: frets.join() === AT_FIRST.frets.join() ? null : frets.join('.'),
    on: strings && strings.join('.'),
    chord: chord || null,
    cut: cuts.join() === AT_FIRST.cuts.join() ? null : cuts.join('.'),
    climb: climb && climbWord(climb),
    way: direction === 'up' ? null : direction,
    twice: topTwice ? '1' : null,
    touch: touch === AT_FIRST.touch ? null : touch,
    step: step ? String(step + 1) : null,
    plan: planWord(plan) === planWord(PLAN_AT_FIRST) ? null : planWord(plan),
    pick: pick ? String(pick + 1) : null,
  }),
};

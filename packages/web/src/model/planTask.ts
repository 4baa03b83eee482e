import { WAYS, type PlanAsked } from '@crow-ladder/contract';
import { ok, refuse, type Result } from '@crow-ladder/core';
import { type Limits, lineEnds, notesBetween, type PlanTask } from '@crow-ladder/core/plan';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from './model.ts';

/** Notes to a quarter note. */
const EIGHTHS = 2;

/** The player’s limits, those alone that there are. */
export function limitsOf({ neck }: Model, asked: PlanAsked): Limits {
  const { reach, mm, closed, strings, least, most, ways, shifts } = asked;
  const many = neck.open.length;
  return {
    ...(reach ? { reach } : {}),
    ...(mm ? { reachMm: mm } : {}),
    ...(closed ? { closed } : {}),
    ...(strings
      ? { strings: neck.rising.filter((s) => s >= strings[0] && s <= Math.min(strings[1], many)) }
      : {}),
    ...(least > 1 ? { least } : {}),
    ...(most ? { most } : {}),
    ...(ways.length < WAYS.length ? { ways } : {}),
    ...(shifts >= 0 ? { shifts } : {}),
  };
}

/** What is to be planned, or why there is nothing to plan. */
export const taskOf = weakMapMemoize((model: Model, asked: PlanAsked): Result<PlanTask> => {
  const { neck, key, state, hand, positions } = model;
  const ground = { neck, key, positions: positions.ok ? positions.value : [], root: state.at };
  const ends = lineEnds(ground, asked.from, asked.to);
  if (!ends.ok) return ends;
  const notes = notesBetween(ground, ...ends.value, asked.back);
  if (!notes.length)
    return refuse(
      'plan.end',
      'Nothing of the scale lies between these two: choose another beginning or end.',
    );
  const speed = (asked.tempo / 60) * EIGHTHS;
  return ok({ neck, hand, notes, limits: limitsOf(model, asked), speed });
});

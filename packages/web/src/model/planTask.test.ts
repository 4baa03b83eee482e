import {
  type ChartState,
  DEFAULT_SETTINGS,
  FIRST_STATE,
  PLAN_AT_FIRST,
  type PlanAsked,
} from '@crow-ladder/contract';
import { modelOf } from './model.ts';
import { limitsOf, taskOf } from './planTask.ts';

const A_MINOR: ChartState = {
  ...FIRST_STATE,
  key: { root: 'A', scale: 'natural-minor' },
  at: { string: 6, fret: 5 },
};
const model = modelOf(A_MINOR, DEFAULT_SETTINGS);
const limits = (change: Partial<PlanAsked>) => limitsOf(model, { ...PLAN_AT_FIRST, ...change });
const task = (change: Partial<PlanAsked>) => taskOf(model, { ...PLAN_AT_FIRST, ...change });

test('what is not limited is left out of the limits', () => {
  expect(limits({})).toEqual({});
  expect(limits({ reach: 3, mm: 90, least: 2, most: 3, shifts: 0 })).toEqual({
    reach: 3,
    reachMm: 90,
    least: 2,
    most: 3,
    shifts: 0,
  });
  expect(limits({ ways: ['slide'] })).toEqual({ ways: ['slide'] });
  expect(limits({ shifts: 2 })).toEqual({ shifts: 2 });
});

test('strings are those of the neck between the two, from the lowest up', () => {
  expect(limits({ strings: [2, 4] }).strings).toEqual([4, 3, 2]);
  expect(limits({ strings: [5, 12] }).strings).toEqual([6, 5]);
});

test('the notes lie between the ends, in eighths at the tempo; and come back where that is asked for', () => {
  const up = task({ from: { at: 'root' }, to: { at: 'octaves', octaves: 1 }, tempo: 90 });
  if (!up.ok) throw new Error(up.error.message);
  // A2 to A3 in A minor: 45 47 48 50 52 53 55 57.
  expect(up.value.notes.map((n) => n.midi)).toEqual([45, 47, 48, 50, 52, 53, 55, 57]);
  expect(up.value.speed).toBe(3);
  const both = task({ from: { at: 'root' }, to: { at: 'octaves', octaves: 1 }, back: true });
  expect(both.ok && both.value.notes.map((n) => n.midi)).toEqual([
    45, 47, 48, 50, 52, 53, 55, 57, 55, 53, 52, 50, 48, 47, 45,
  ]);
});

test('an end that is nowhere is refused, and so is one that is no note of the scale', () => {
  const place = (string: number, fret: number) => ({ at: 'place', place: { string, fret } }) as const;
  const off = task({ from: place(9, 3) });
  expect(off.ok).toBe(false);
  const outside = task({ from: place(6, 6), to: place(6, 8) });
  expect(!outside.ok && outside.error.code).toBe('plan.place');
});

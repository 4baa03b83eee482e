import {
  type ChartState,
  DEFAULT_SETTINGS,
  FIRST_STATE,
  type KeptClimb,
  type KeptPlan,
  PLAN_AT_FIRST,
} from '@crow-ladder/contract';
import { keptRuns, movedWithKey } from './keptRuns.ts';
import { modelOf } from './model.ts';
import { withRoot } from './moves.ts';

const A_MINOR: ChartState = {
  ...FIRST_STATE,
  key: { root: 'A', scale: 'minor-pentatonic' },
  at: { string: 6, fret: 5 },
  layout: { kind: 'count', counts: [2] },
};
const named = { name: 'Gangway', at: { string: 6, fret: 5 }, root: 'A' };
const climb: KeptClimb = {
  ...named,
  type: 'climb',
  climb: { kind: 'zigzag', through: 2 },
  direction: 'both',
  topTwice: true,
  touch: 'slurred',
  start: 1,
  low: 7,
};

test('climbs and plans have their places among the runs; what cannot be read is passed over', () => {
  const plan = { ...named, name: 'Pier', type: 'plan', plan: PLAN_AT_FIRST, pick: 2 } as const;
  const verse = { type: 'unread', was: { type: 'verse' } } as const;
  expect(keptRuns({ ...A_MINOR, runs: [verse, climb, plan] })).toEqual([
    { at: 1, kept: climb },
    { at: 2, kept: plan },
  ]);
});

test('what was kept moves with the key, the shorter way, and stays on the neck', () => {
  const moved = (root: string) => movedWithKey(modelOf(withRoot(A_MINOR, root), DEFAULT_SETTINGS), climb);
  const fret = (root: string, from: number): number => moved(root).place({ string: 6, fret: from }).fret;
  expect(['A', 'C', 'Eb', 'E', 'G', 'Ab'].map((root) => fret(root, 5))).toEqual([5, 8, 11, 0, 3, 4]);
  // Off the nut and off the last fret it goes on an octave away.
  expect([fret('G', 1), fret('C', 21)]).toEqual([11, 12]);
  expect(moved('A').place({ string: 9, fret: 5 })).toEqual({ string: 6, fret: 5 });
  expect(moved('C').nearest(1, 7)).toMatchObject({ start: 1, lowFret: 10 });
  expect(moved('C').nearest(9, 7)).toBeNull();
});

test('a plan moves with its ends', () => {
  const ends = {
    from: { at: 'position', ref: { start: 1, low: 7, nth: 0 } },
    to: { at: 'place', place: { string: 6, fret: 5 } },
  } as const;
  const run: KeptPlan = { ...named, type: 'plan', plan: { ...PLAN_AT_FIRST, ...ends }, pick: 0 };
  const { planned } = movedWithKey(modelOf(withRoot(A_MINOR, 'C'), DEFAULT_SETTINGS), run);
  expect(planned(run)).toEqual({
    ...PLAN_AT_FIRST,
    from: { at: 'position', ref: { start: 1, low: 10, nth: 0 } },
    to: { at: 'place', place: { string: 6, fret: 8 } },
  });
});

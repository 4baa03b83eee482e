import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { type KeptRun, keptRuns, movedWithKey } from './keptRuns.ts';
import { modelOf } from './model.ts';
import { withRoot } from './moves.ts';
import { PLAN_AT_FIRST, planWord } from './planAsked.ts';

const A_MINOR: ChartState = {
  ...FIRST_STATE,
  key: { root: 'A', scale: 'minor-pentatonic' },
  at: { string: 6, fret: 5 },
  layout: { kind: 'count', counts: [2] },
};
const kept = (run: object, state = A_MINOR): KeptRun | undefined =>
  keptRuns({ ...state, runs: [run as never] })[0]?.kept;
const named = { name: 'Gangway', at: { string: 6, fret: 5 }, root: 'A' };
const climb = {
  ...named,
  type: 'climb',
  climb: { kind: 'zigzag', through: 2 },
  direction: 'both',
  topTwice: true,
  touch: 'slurred',
  start: 1,
  low: 7,
};

test('climbs and plans are read as they were kept, each with its place among the runs', () => {
  const plan = {
    ...named,
    name: 'Pier',
    type: 'plan',
    plan: 'root.o2.one.0.0.all.1.0.change.-1.100',
    pick: 2,
  };
  expect(keptRuns({ ...A_MINOR, runs: [{ type: 'verse' }, climb, plan] })).toEqual([
    { at: 1, kept: climb },
    { at: 2, kept: plan },
  ]);
});

test('what was kept before there was more to say is read as it was meant then', () => {
  const { at, root, direction, topTwice, touch, ...early } = climb;
  expect([at.fret, root, direction, topTwice, touch]).toEqual([5, 'A', 'both', true, 'slurred']);
  // It was counted from the fret of the chart's root.
  expect(kept({ ...early, low: 2 })).toEqual({
    ...climb,
    direction: 'up',
    topTwice: false,
    touch: 'picked',
    low: 7,
  });
  expect(kept({ ...early, slurred: true })).toMatchObject({ touch: 'slurred' });
  expect(kept({ name: 'Pier', type: 'plan', plan: 'x' })).toMatchObject({
    at: A_MINOR.at,
    root: 'A',
    pick: 0,
  });
});

test('what is no run is passed over', () => {
  for (const odd of [
    { ...climb, name: 7 },
    { ...climb, climb: { kind: 'none' } },
    { ...climb, climb: null },
    { ...climb, start: 1.5 },
    { ...climb, type: 'verse' },
    { ...named, type: 'plan', plan: 7 },
  ])
    expect(kept(odd)).toBeUndefined();
});

test('what was kept moves with the key, the shorter way, and stays on the neck', () => {
  const run = kept(climb)!;
  const moved = (root: string) => movedWithKey(modelOf(withRoot(A_MINOR, root), DEFAULT_SETTINGS), run);
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
  const run = kept({ ...named, type: 'plan', plan: planWord({ ...PLAN_AT_FIRST, ...ends }) });
  const { planned } = movedWithKey(modelOf(withRoot(A_MINOR, 'C'), DEFAULT_SETTINGS), run!);
  expect(planned(run as never)).toEqual({
    ...PLAN_AT_FIRST,
    from: { at: 'position', ref: { start: 1, low: 10, nth: 0 } },
    to: { at: 'place', place: { string: 6, fret: 8 } },
  });
});

import { FIRST_STATE, type ChartState } from '@crow-ladder/contract';
import {
  CATALOGUE,
  instrumentOf,
  mod,
  neckOf,
  note,
  pitchAt,
  pitchClass,
  ROOTS,
  TUNINGS,
  tuningById,
} from '@crow-ladder/core';
import fc from 'fast-check';
import {
  layoutFollowed,
  stepRoot,
  switched,
  transpose,
  withBoth,
  withFront,
  withInstrument,
  withLayout,
  withoutOther,
  withRoot,
  withScale,
  withSpot,
} from './moves.ts';

const state: ChartState = FIRST_STATE;
/** The root sounds at the spot where the chart says it lies. */
const isTrue = (s: ChartState): void => {
  const neck = neckOf(s.instrument);
  const { string, fret } = s.at;
  expect(fret).toBeGreaterThanOrEqual(0);
  expect(fret).toBeLessThanOrEqual(neck.frets);
  expect(mod(pitchAt(neck, string, fret), 12)).toBe(pitchClass(note(s.key.root)));
};

/** What a chart says of its root. */
const place = ({ key, at }: ChartState): string => `${key.root} ${at.string}/${at.fret}`;
const on = (root: string, string: number, fret: number): ChartState => ({
  ...state,
  key: { ...state.key, root },
  at: { string, fret },
});

test('another root stays on its string, at the fret nearest to the old one', () => {
  expect(place(withRoot(state, 'G'))).toBe('G 6/3');
  expect(place(withRoot(on('F#', 6, 14), 'F'))).toBe('F 6/13');
  expect(place(withRoot(state, 'E'))).toBe('E 6/0');
  expect(withRoot(state, 'H')).toBe(state);
});

test('a spot gives the root its pitch, and keeps the name where the pitch is the same', () => {
  expect(place(withSpot(state, { string: 5, fret: 1 }, 'sharps'))).toBe('Bb 5/1');
  expect(place(withSpot(on('Gb', 6, 2), { string: 4, fret: 4 }, 'sharps'))).toBe('Gb 4/4');
  // A pair of strings goes with its root, as a single string does.
  const paired = withSpot({ ...state, layout: { kind: 'pair', lower: 6 } }, { string: 4, fret: 7 }, 'sharps');
  expect(paired.layout).toEqual({ kind: 'pair', lower: 4 });
  const alone = withSpot(
    { ...state, layout: { kind: 'single', string: 6 } },
    { string: 3, fret: 2 },
    'flats',
  );
  expect(alone.layout).toEqual({ kind: 'single', string: 3 });
});

test('the position brought forward gives way where the root is put elsewhere', () => {
  const third = withFront(state, { start: 2, low: 5, nth: 0 });
  for (const moved of [
    withRoot(third, 'A'),
    withSpot(third, { string: 5, fret: 1 }, 'flats'),
    stepRoot(third, 1),
    withLayout(third, { kind: 'fourths' }),
    withScale(third, 'minor-pentatonic'),
  ])
    expect(moved.front).toBeNull();
  expect(withScale(third, 'lydian').front).toEqual(third.front);
  expect(withInstrument(third, { ...state.instrument, frets: 24 }, null).front).toEqual(third.front);
});

test('a scale of another size brings the usual notes per string, one of the same size keeps the layout', () => {
  expect(withScale(state, 'minor-pentatonic').layout).toEqual({ kind: 'count', counts: [2] });
  const counted: ChartState = { ...state, layout: { kind: 'count', counts: [3, 3, 2] } };
  expect(withScale(counted, 'lydian').layout).toEqual(counted.layout);
  const reach: ChartState = { ...state, layout: { kind: 'reach', reach: 4 } };
  expect(withScale(reach, 'minor-pentatonic').layout).toEqual(reach.layout);
});

test('another instrument finds the root again and keeps layouts within its strings', () => {
  const bass = instrumentOf(tuningById('bass-four')!);
  const moved = withInstrument({ ...state, layout: { kind: 'relay', notes: 12, perString: 3 } }, bass, 'x');
  expect(moved).toMatchObject({
    at: { string: 4, fret: 2 },
    instrumentId: 'x',
    layout: { kind: 'relay', notes: 9 },
  });
  expect(withInstrument({ ...state, layout: { kind: 'pair', lower: 6 } }, bass, null).layout).toEqual({
    kind: 'pair',
    lower: 4,
  });
  isTrue(moved);
});

test('roots are walked up the neck, round and back', () => {
  const walk = [state];
  for (let i = 0; i < 12; i++) walk.push(stepRoot(walk.at(-1)!, 1));
  expect(walk.map((s) => `${s.at.string}/${s.at.fret}`).slice(0, 6)).toEqual([
    '6/2',
    '1/2',
    '4/4',
    '2/7',
    '5/9',
    '3/11',
  ]);
  expect(walk.filter((s) => s.at.string === 6 && s.at.fret === 2).length).toBeGreaterThan(1);
  expect(stepRoot(stepRoot(state, 1), -1)).toEqual(state);
});

test('a chart switches between its instruments; each keeps its layout and position, the root is found again', () => {
  const bass = {
    ...withInstrument(state, instrumentOf(tuningById('bass-four')!), null),
    layout: { kind: 'fourths' },
  };
  const both = withBoth(state, bass);
  expect(both.others).toMatchObject([{ at: state.at, layout: state.layout }]);
  expect(switched(switched(both, 0), 0)).toEqual(both);
  const moved = switched(transpose(both, 2, 'flats'), 0);
  isTrue(moved);
  expect([moved.layout, moved.front, moved.instrument]).toEqual([state.layout, null, state.instrument]);
  expect(withoutOther(both, 0).others).toEqual([]);
  expect(switched(both, 5)).toBe(both);
  // The position that was in front there is, as long as the key is the one that it was left in.
  const front = { start: 1, low: 7, nth: 0 };
  const left = { ...both, others: both.others.map((o) => ({ ...o, front })) };
  expect(switched(left, 0).front).toEqual(front);
  expect(switched(transpose(left, 2, 'flats'), 0).front).toBeNull();
});

test('what falls off the neck goes on an octave away', () => {
  expect(place(transpose(on('E', 6, 0), -1, 'sharps'))).toBe('Eb 6/11');
  expect(place(transpose(on('D', 6, 22), 1, 'flats'))).toBe('Eb 6/11');
});

test('whatever is moved, the root lies where it is said to lie', () => {
  const anyState = fc
    .record({
      tuning: fc.constantFrom(...TUNINGS),
      scale: fc.constantFrom(...CATALOGUE.map((s) => s.id)),
      root: fc.constantFrom(...ROOTS.flat()),
    })
    .map(({ tuning, scale, root }) =>
      withRoot(withScale(withInstrument(state, instrumentOf(tuning), null), scale), root),
    );
  fc.assert(
    fc.property(
      anyState,
      fc.integer({ min: -11, max: 11 }),
      fc.constantFrom(1 as const, -1 as const),
      (s, by, step) => {
        isTrue(s);
        isTrue(transpose(s, by, 'flats'));
        isTrue(stepRoot(s, step));
      },
    ),
  );
});

test('a layout that follows the scale says so; six notes and what was chosen otherwise stay as they are', () => {
  const seven = { ...state, layout: { kind: 'count', counts: [3] } };
  const to = (from: ChartState, scale: string) => {
    const after = withScale(from, scale);
    return [after.layout['counts'], layoutFollowed(from, after)];
  };
  expect(to(seven, 'minor-pentatonic')).toEqual([
    [2],
    'The layout is two notes per string now, as is usual for five notes.',
  ]);
  expect(to(seven, 'minor-blues')).toEqual([[3], null]);
  expect(to({ ...seven, layout: { kind: 'count', counts: [4] } }, 'minor-pentatonic')).toEqual([[4], null]);
  const pair = { ...state, layout: { kind: 'pair', lower: 6 } };
  const bass = withInstrument(pair, instrumentOf(tuningById('bass-four')!), null);
  expect(layoutFollowed(pair, bass)).toBe(
    'The layout is on a pair of strings from string 4 now, to fit the strings.',
  );
  expect(layoutFollowed(pair, withLayout(pair, { kind: 'fourths' }))).toBeNull();
});

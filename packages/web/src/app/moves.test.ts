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
import { stepRoot, transpose, withInstrument, withRoot, withScale, withSpot } from './moves.ts';

const state: ChartState = FIRST_STATE;
/** The root sounds at the spot where the chart says it lies. */
const isTrue = (s: ChartState): void => {
  const neck = neckOf(s.instrument);
  expect(s.fret).toBeGreaterThanOrEqual(0);
  expect(s.fret).toBeLessThanOrEqual(neck.frets);
  expect(mod(pitchAt(neck, s.string, s.fret), 12)).toBe(pitchClass(note(s.root)));
};

test('another root stays on its string, at the fret nearest to the old one', () => {
  expect(withRoot(state, 'G')).toMatchObject({ root: 'G', string: 6, fret: 3 });
  expect(withRoot({ ...state, fret: 14 }, 'F')).toMatchObject({ root: 'F', string: 6, fret: 13 });
  expect(withRoot(state, 'E')).toMatchObject({ fret: 0 });
  expect(withRoot(state, 'H')).toBe(state);
});

test('a spot gives the root its pitch, and keeps the name where the pitch is the same', () => {
  expect(withSpot(state, 5, 1, 'sharps')).toMatchObject({ root: 'Bb', string: 5, fret: 1 });
  expect(withSpot({ ...state, root: 'Gb' }, 4, 4, 'sharps')).toMatchObject({ root: 'Gb', string: 4 });
  const alone = withSpot({ ...state, layout: { kind: 'single', string: 6 } }, 3, 2, 'flats');
  expect(alone.layout).toEqual({ kind: 'single', string: 3 });
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
  const on = withInstrument({ ...state, layout: { kind: 'relay', notes: 12, perString: 3 } }, bass, 'x');
  expect(on).toMatchObject({ string: 4, fret: 2, instrumentId: 'x', layout: { kind: 'relay', notes: 9 } });
  expect(withInstrument({ ...state, layout: { kind: 'pair', lower: 6 } }, bass, null).layout).toEqual({
    kind: 'pair',
    lower: 4,
  });
  isTrue(on);
});

test('roots are walked from the lowest string up, round and back', () => {
  expect(stepRoot(state, 1)).toMatchObject({ string: 6, fret: 14 });
  expect(stepRoot(stepRoot(state, 1), 1)).toMatchObject({ string: 5, fret: 9 });
  expect(stepRoot(stepRoot(state, 1), -1)).toEqual(state);
});

test('what falls off the neck goes on an octave away', () => {
  expect(transpose({ ...state, root: 'E', fret: 0 }, -1, 'sharps')).toMatchObject({ root: 'Eb', fret: 11 });
  expect(transpose({ ...state, root: 'D', fret: 22 }, 1, 'flats')).toMatchObject({ root: 'Eb', fret: 11 });
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

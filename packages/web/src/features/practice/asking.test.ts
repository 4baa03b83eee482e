import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { degreeIndex } from '@crow-ladder/core';
import { modelOf } from '../../model/model.ts';
import { answersAt } from '../../ui/answersAt.ts';
import { answerOf, answersOf } from './asking.ts';

const A_DORIAN: ChartState = {
  ...FIRST_STATE,
  key: { root: 'A', scale: 'dorian' },
  at: { string: 6, fret: 5 },
};
const model = modelOf(A_DORIAN, DEFAULT_SETTINGS);
const spot = (midi: number) => ({ string: 6, fret: midi - 40, midi, degree: degreeIndex(model.key, midi) });

test('what is to be said of a note is its degree or its name; in the drill of roots the chord on it', () => {
  // A dorian: A B C D E F♯ G; common practice, no source.
  expect([45, 48, 54].map((midi) => answerOf(model, 'degree', 'thirds', { midi }))).toEqual(['1', '♭3', '6']);
  expect([45, 48, 54].map((midi) => answerOf(model, 'note', 'thirds', { midi }))).toEqual(['A', 'C', 'F♯']);
  expect(answerOf(model, 'note', 'thirds', { midi: 46 })).toMatch(/^(A♯|B♭)$/);
  const chords = [45, 48, 54].map((midi) => answerOf(model, 'note', 'roots', { midi }));
  expect(chords.map((c) => c.split(' ')[0])).toEqual(['A', 'C', 'F♯']);
  expect(new Set(chords.map((c) => c.replace(/^\S+ /, ''))).size).toBe(3);
  expect(answerOf(model, 'note', 'roots', { midi: 46 })).toMatch(/^(A♯|B♭)$/);
});

test('what can be answered comes in the order of the scale, what lies outside it last, each once', () => {
  const outside = answerOf(model, 'note', 'thirds', { midi: 46 });
  expect(answersOf(model, 'note', 'thirds', [46, 57, 45, 48].map(spot))).toEqual([...model.notes, outside]);
  expect(answersOf(model, 'degree', 'thirds', [spot(45)])).toEqual(model.degrees);
  const roots = answersOf(model, 'note', 'roots', [46, 54, 48, 45, 57].map(spot));
  expect(roots.map((a) => a.split(' ')[0])).toEqual(['A', 'C', 'F♯', outside]);
});

test('a key stands for the answers that begin with its letter or its digit', () => {
  const answers = ['A', 'B♭', 'B', 'F♯ minor', '♭3', '3'];
  expect(answersAt(answers, 'b')).toEqual(['B♭', 'B']);
  expect(answersAt(answers, 'F')).toEqual(['F♯ minor']);
  expect(answersAt(answers, '3')).toEqual(['♭3', '3']);
  for (const key of ['h', '8', '0', 'ab', 'xa', 'Enter'])
    expect([key, answersAt(answers, key)]).toEqual([key, []]);
});

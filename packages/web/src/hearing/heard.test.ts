import { expect, test } from '@jest/globals';
import { type NoteVerdict, type RoundSummary } from '@crow-ladder/core/listening';
import { type Run } from '@crow-ladder/core/run';
import { faultsSaid, summarySaid } from './Heard.tsx';

const ROUND: RoundSummary = {
  asked: 8,
  right: 8,
  wrong: 0,
  missed: 0,
  extra: 0,
  mean: 2,
  spread: 6,
  accent: 1,
  cents: 3,
  lateMoves: [],
  offBends: [],
  clean: true,
};
const said = (of: Partial<RoundSummary>, delay: number | null = 0): readonly string[] =>
  summarySaid({ ...ROUND, ...of }, delay, (step) => 'CDEFGABC'[step]!);

test('a round without fault is said shortly; what was noticed is said in its own sentence', () => {
  expect(said({})).toEqual(['8 of 8 notes right.', 'Even to 6 ms.']);
  expect(said({ right: 5, wrong: 1, missed: 2, extra: 1 })[0]).toBe(
    '5 of 8 notes right: 1 wrong note, 2 missed, 1 too many.',
  );
  expect(said({ accent: -4.2 })).toContain('Notes on the beat are 4 dB softer than those between.');
  expect(said({ cents: -14 })).toContain('The guitar is 14 cents flat: tune it.');
  expect(said({ lateMoves: [{ step: 3, move: 'crossing', ms: 48 }] })).toContain(
    'The crossing to note 4, F, is late by 48 ms.',
  );
  expect(said({ offBends: [{ step: 1, cents: 27 }] })).toContain('The bend of note 2, D, is 27 cents sharp.');
});

test('who drags or rushes is told where the delay of the input is known, and not where it is not', () => {
  expect(said({ mean: 18 })[1]).toBe('Dragging by 18 ms, even to 6 ms.');
  expect(said({ mean: -18 })[1]).toBe('Rushing by 18 ms, even to 6 ms.');
  expect(said({ mean: 18 }, null)[1]).toBe('Even to 6 ms.');
});

test('faults are named by their notes: another one, one that was missed, and one that nobody asked for', () => {
  const run = [0, 2, 4].map((midi) => ({ spot: { midi } })) as unknown as Run;
  const wrong = { is: 'wrong', midi: 3 } as NoteVerdict;
  const verdicts = new Map<number, NoteVerdict>([
    [1, wrong],
    [2, { is: 'missed' }],
  ]);
  const extra = [
    { midi: 5, after: -1 },
    { midi: 0, after: 0 },
  ];
  expect(faultsSaid(run, { verdicts, extra }, (midi) => 'CDEFGAB'[midi]!)).toBe(
    'Note 2, E: F instead; note 3, G, was not heard; A before note 1; C too many after note 1, C.',
  );
});

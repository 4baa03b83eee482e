import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE, type KeptClimb } from '@crow-ladder/contract';
import { readDocument } from '@crow-ladder/contract/schemas';
import { ALIASES } from '@crow-ladder/core';
import { params as ladder } from './features/ladder/params.ts';
import { params as move } from './features/move/params.ts';
import { materialOf } from './features/practice/material.ts';
import { params as practice } from './features/practice/params.ts';
import { modelOf } from './model/model.ts';

// Kinds that had other names once, in what was kept and in addresses.
beforeAll(() => {
  ALIASES.climb.set('gangplank', 'slide');
  ALIASES.drill.set('tides', 'up-and-down');
  ALIASES.move.set('drift', 'key');
});
afterAll(() => {
  for (const sort of ['climb', 'drill', 'move'] as const) ALIASES[sort].clear();
});

test('a kept run of a climb that was renamed is read, and practised as it was', () => {
  const run = (kind: string): KeptClimb => ({
    type: 'climb',
    name: 'Gangway',
    at: { string: 6, fret: 5 },
    root: 'A',
    climb: { kind, string: 3 },
    direction: 'up',
    topTwice: false,
    touch: 'picked',
    start: 0,
    low: 5,
  });
  const practised = (kind: string) => {
    const state: ChartState = {
      ...FIRST_STATE,
      key: { root: 'A', scale: 'minor-pentatonic' },
      at: { string: 6, fret: 5 },
      layout: { kind: 'count', counts: [2] },
      runs: [run(kind)],
    };
    const read = readDocument(state);
    if (!read.ok) throw new Error(read.error.message);
    const material = materialOf(modelOf(read.value, DEFAULT_SETTINGS), 'kept.Gangway', 2)!;
    return material.ok ? material.value.lots[0]!.notes : material.error;
  };
  expect(practised('slide')).toHaveLength(13);
  expect(practised('gangplank')).toEqual(practised('slide'));
});

test('addresses with names of before open what they named', () => {
  const query = (text: string) => new URLSearchParams(text);
  expect(ladder.read(query('climb=gangplank.3')).climb).toEqual({ kind: 'slide', string: 3 });
  expect(practice.read(query('drill=tides.twice')).drill).toEqual({ kind: 'up-and-down', topTwice: true });
  expect(move.read(query('look=drift&move=drift.3.whole'))).toMatchObject({
    view: 'key',
    move: { kind: 'key', by: 3 },
  });
});

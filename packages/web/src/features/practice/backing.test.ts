import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE, type Progression } from '@crow-ladder/contract';
import { mod } from '@crow-ladder/core';
import { inTime, type Run, scheduleOf } from '@crow-ladder/core/run';
import { modelOf } from '../../model/model.ts';
import { CHANGES, playedOver, withProgression } from '../../model/progression.ts';
import { alongOf, backingFor, chordsAt } from './backing.ts';

const chord = (above: number) => ({
  above,
  suffix: '7',
  degrees: ['1', '3', '5', 'b7'],
  bass: above === 5 ? 4 : null,
});
/** Two bars: one chord, then two that share a bar; E flat is the root. */
const over: Omit<Progression, 'type'> = { beats: 4, bars: [[chord(0)], [chord(5), chord(7)]], scales: {} };
const E_FLAT: ChartState = {
  ...FIRST_STATE,
  key: { root: 'Eb', scale: 'mixolydian' },
  at: { string: 5, fret: 6 },
};
const model = modelOf(withProgression(E_FLAT, over), DEFAULT_SETTINGS);
const step = {
  spot: { string: 1, fret: 5, midi: 69, degree: 0 },
  finger: 1,
  hand: 5,
  arrive: 'pick',
} as const;
/** Quarter notes. */
const run = (notes: number): Run =>
  inTime(
    Array.from({ length: notes }, () => step),
    1,
  );
/** At 60, after a bar that is counted in. */
const schedule = (notes: number) =>
  scheduleOf(run(notes), { tempo: 60, swing: 50, beatsPerBar: 4, countIn: 1, endsOn: 3840 });

test('chords sound after the count-in, anew in each bar, and go round under what is longer than they are', () => {
  const all = backingFor(playedOver(model), schedule(12), 60, 0);
  expect(all.map(({ at, until }) => [at, until])).toEqual([
    [4, 8],
    [8, 10],
    [10, 12],
    [12, 16],
  ]);
  // E flat, A flat over its third, B flat: the bass note first.
  expect(all.map(({ pitches }) => mod(pitches[0]!, 12))).toEqual([3, 0, 10, 3]);
  expect(all[3]!.pitches).toEqual(all[0]!.pitches);
});

test('a part that begins within a bar has the chord of its place from its first note on', () => {
  const part = backingFor(playedOver(model), schedule(4), 60, 6);
  expect(part.map(({ at, until }) => [at, until])).toEqual([
    [4, 6],
    [6, 8],
  ]);
  expect(part.map(({ pitches }) => mod(pitches[0]!, 12))).toEqual([10, 3]);
  expect(backingFor(playedOver(model), schedule(4), 60, 1)[0]).toMatchObject({ at: 4, until: 7 });
  expect(backingFor(null, schedule(4), 60, 0)).toEqual([]);
});

test('chords are heard under a line through them unless they are muted, and said with the one that follows', () => {
  const at = (on: string, along: number | null = null) => alongOf(model, { on, along });
  expect([at(CHANGES), at('position'), at(CHANGES, 0), at('position', 40)]).toEqual([60, 0, 0, 40]);
  expect(alongOf(modelOf(E_FLAT, DEFAULT_SETTINGS), { on: CHANGES, along: null })).toBeNull();
  const said = (i: number) => {
    const chords = chordsAt(playedOver(model), run(12), i);
    return chords && [chords.now.name, chords.next.name];
  };
  expect([said(0), said(5), said(7), said(8)]).toEqual([
    ['E♭7', 'A♭7/C'],
    ['A♭7/C', 'B♭7'],
    ['B♭7', 'E♭7'],
    ['E♭7', 'A♭7/C'],
  ]);
});

import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE, type Progression } from '@crow-ladder/contract';
import { mod } from '@crow-ladder/core';
import { barsOf, inTime, inTurns, type Run, scheduleOf } from '@crow-ladder/core/run';
import { modelOf } from '../../model/model.ts';
import { CHANGES, playedOver, withProgression } from '../../model/progression.ts';
import { setSaid } from './Options.tsx';
import { AT_FIRST } from './params.ts';
import { alongOf, backingFor, chordsAt, metreOf, turnsOf, underneath } from './backing.ts';

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
  const all = backingFor(playedOver(model)!, schedule(12), 60, 0, null);
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
  const part = backingFor(playedOver(model)!, schedule(4), 60, 6, null);
  expect(part.map(({ at, until }) => [at, until])).toEqual([
    [4, 6],
    [6, 8],
  ]);
  expect(part.map(({ pitches }) => mod(pitches[0]!, 12))).toEqual([10, 3]);
  expect(backingFor(playedOver(model)!, schedule(4), 60, 1, null)[0]).toMatchObject({ at: 4, until: 7 });
});

test('chords are heard under a line through them unless they are muted, and said with the one that follows', () => {
  const at = (on: string, along: number | null = null) => alongOf(model, { on, along, chords: null });
  expect([at(CHANGES), at('position'), at(CHANGES, 0), at('position', 40)]).toEqual([60, 0, 0, 40]);
  expect(alongOf(modelOf(E_FLAT, DEFAULT_SETTINGS), { on: CHANGES, along: null, chords: null })).toBe(0);
  const said = (i: number) => {
    const chords = chordsAt(playedOver(model)!, run(12), i, null);
    return chords && [chords.now.name, chords.next.name];
  };
  expect([said(0), said(5), said(7), said(8)]).toEqual([
    ['E♭7', 'A♭7/C'],
    ['A♭7/C', 'B♭7'],
    ['B♭7', 'E♭7'],
    ['E♭7', 'A♭7/C'],
  ]);
});

test('a bar of chords comes before the bars to play in, and what is played waits for it', () => {
  const turns = turnsOf(model, { answer: false, leave: 2, on: 'position', chords: null })!;
  const moved = inTurns(run(12), 4, turns);
  // Three bars of quarter notes: the second and the third bar, then the fifth.
  expect(moved.map((s) => s.start / 960)).toEqual([4, 5, 6, 7, 8, 9, 10, 11, 16, 17, 18, 19]);
  const plan = scheduleOf(moved, {
    tempo: 60,
    swing: 50,
    beatsPerBar: 4,
    countIn: 1,
    endsOn: 3840 * barsOf(turns),
  });
  const chords = backingFor(playedOver(model)!, plan, 60, 0, turns);
  expect(chords.map(({ at, until }) => [at, until])).toEqual([
    [4, 8],
    [16, 18],
    [18, 20],
  ]);
  // While it is played in, a bar keeps its last chord.
  const at = (i: number) => chordsAt(playedOver(model)!, moved, i, turns)!.now.name;
  expect([at(0), at(7), at(8), at(11)]).toEqual(['E♭7', 'E♭7', 'B♭7', 'B♭7']);
  // A line through chords keeps their time.
  expect(turnsOf(model, { answer: true, leave: 2, on: CHANGES, chords: null })).toBeNull();
  // Nor does the sentence say that it leaves bars free, as it does of others.
  const said = (leave: number, on: string) => {
    const asked = { ...AT_FIRST, leave, on };
    return setSaid(asked, turnsOf(model, asked), 'close');
  };
  expect([said(2, 'position'), said(2, CHANGES)]).toEqual(['a bar of chords, 2 bars to play in', 'as usual']);
  // A scale that has no chord has no bar for it.
  const bare = modelOf({ ...E_FLAT, key: { root: 'Eb', scale: 'iwato' } }, DEFAULT_SETTINGS);
  expect(turnsOf(bare, { answer: false, leave: 2, on: 'position', chords: 'own' })).toBeNull();
});

test('the chord of the scale itself sounds where it is asked for, or where no chords were typed', () => {
  const plain = modelOf(E_FLAT, DEFAULT_SETTINGS);
  const under = (of: typeof model, chords: 'own' | null) =>
    underneath(of, { chords, on: 'position' })?.slots.map((s) => s.name);
  expect(under(plain, null)).toEqual(['E♭7']);
  expect(under(model, 'own')).toEqual(['E♭7']);
  expect(under(model, null)).toHaveLength(3);
  expect(alongOf(plain, { on: 'position', along: null, chords: 'own' })).toBe(60);
});

test('bars are as long as those of the chords that are heard', () => {
  const three = modelOf(withProgression(E_FLAT, { ...over, beats: 3 }), DEFAULT_SETTINGS);
  const beats = (part: Partial<Parameters<typeof metreOf>[1]>) =>
    metreOf(three, { on: 'position', along: null, chords: null, ...part });
  expect([beats({}), beats({ on: CHANGES }), beats({ along: 40 }), beats({ chords: 'own' })]).toEqual([
    4, 3, 3, 4,
  ]);
});

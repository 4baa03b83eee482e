import { QUARTER } from '@crow-ladder/core/run';
import { type FileNote, type FileRead, lastBar, taken } from '../src/index.ts';
import { right } from './helpers.ts';

/** A file of one voice: MIDI number, start and length in quarter notes. */
function fileOf(
  notes: readonly (readonly [midi: number, start: number, length: number, more?: Partial<FileNote>])[],
  more: Partial<FileRead> = {},
): FileRead {
  const all = notes.map(([midi, start, length, rest]): FileNote => ({
    midi,
    start: Math.round(start * QUARTER),
    length: Math.round(length * QUARTER),
    where: { bar: 1 },
    ...rest,
  }));
  const end = all.reduce((so, { start, length }) => Math.max(so, start + length), 0);
  const bar = 4 * QUARTER;
  return {
    title: null,
    tempo: null,
    key: null,
    metre: { beats: 4, unit: 4 },
    bars: Array.from({ length: Math.ceil(end / bar) }, (_, i) => ({ start: i * bar, length: bar })),
    timed: true,
    parts: [{ name: 'Lead', open: null, voices: [{ name: '', notes: all }] }],
    remarks: [],
    ...more,
  };
}
const take = (
  file: FileRead,
  chords: 'top' | 'bottom' | 'refuse' = 'top',
  bars?: readonly [number, number],
) => taken(file, { part: 0, voice: 0, bars: bars ?? [1, file.bars.length], chords });
/** Notes with their lengths in ticks, rests as r. */
const line = (file: FileRead, chords?: 'top' | 'bottom', bars?: readonly [number, number]): string =>
  right(take(file, chords, bars))
    .tune.map(({ midi, length }) => `${midi ?? 'r'}:${length}`)
    .join(' ');

test('the top or the bottom line of chords is taken, each note until the next one, or chords are refused with their place', () => {
  const file = fileOf([
    [60, 0, 2],
    [64, 0, 2],
    [67, 1, 1],
    [72, 3, 1],
  ]);
  expect(line(file)).toBe('64:960 67:960 r:960 72:960');
  expect(line(file, 'bottom')).toBe('60:960 67:960 r:960 72:960');
  expect(right(take(file)).said).toEqual([
    'In 1 place notes sound together: the highest is taken.',
    '1 note would sound on into the next one: there it ends.',
  ]);
  expect(take(file, 'refuse')).toMatchObject({
    error: { code: 'take.chord', message: expect.stringMatching(/^Bar 1: 2 notes/) },
  });
});

test('triplets, fifths and sevenths of a beat stay; times of a player are brought to the nearest that can be written, which is said', () => {
  const parts = (of: number) => Array.from({ length: of }, (_, i) => [60 + i, i / of, 1 / of] as const);
  expect(line(fileOf(parts(5)))).toBe('60:192 61:192 62:192 63:192 64:192');
  expect(line(fileOf(parts(7)))).toBe('60:137 61:137 62:137 63:138 64:137 65:137 66:137');
  expect(line(fileOf(parts(3)))).toBe('60:320 61:320 62:320');
  const played = fileOf([
    [60, 0.01, 0.46],
    [62, 0.49, 0.48],
    [64, 1.03, 0.9],
  ]);
  expect(line(played)).toBe('60:480 62:480 64:960');
  expect(right(take(played)).said).toEqual([
    'In bar 1 times are brought to the nearest that can be written.',
  ]);
  const grains = fileOf([
    [60, 0, 0.01],
    [62, 0.5, 0.5],
  ]);
  expect(line(grains)).toBe('r:480 62:480');
  expect(right(take(grains)).said).toContain('1 note shorter than that is left out.');
});

test('a pickup ends where its bar ends; bars of odd eighths are doubled', () => {
  const bar = 3 * QUARTER;
  const bars = [
    { start: 0, length: QUARTER },
    { start: QUARTER, length: bar },
  ];
  const pickup = fileOf(
    [
      [62, 0, 1],
      [67, 1, 3],
    ],
    { metre: { beats: 3, unit: 4 }, bars },
  );
  expect(line(pickup)).toBe('r:1920 62:960 67:2880');
  expect(right(take(pickup)).beats).toBe(3);
  expect(line(pickup, 'top', [2, 2])).toBe('67:2880');
  const of = (beats: number, unit: number) => right(take(fileOf([[60, 0, 1]], { metre: { beats, unit } })));
  expect([of(6, 8).beats, of(5, 8).beats, of(12, 8).beats, of(2, 2).beats, of(3, 8).beats]).toEqual([
    3, 5, 6, 4, 3,
  ]);
  expect(of(5, 8).said).toEqual(['Bars of 5/8 are written in 5/4.']);
});

test('strings, fingers and bends go along; a slur from another string is picked', () => {
  const bend = { by: 2, how: 'once', released: false } as const;
  const file = fileOf([
    [60, 0, 1, { string: 3, fret: 5, finger: 1 }],
    [62, 1, 1, { string: 3, fret: 7, joined: 'slur', bend }],
    [64, 2, 1, { string: 2, fret: 5, joined: 'slide' }],
  ]);
  const { tune, said } = right(take(file));
  expect(tune).toEqual([
    { midi: 60, string: 3, length: 960, finger: 1 },
    { midi: 62, string: 3, length: 960, joined: 'slur', bend },
    { midi: 64, string: 2, length: 960 },
  ]);
  expect(said).toEqual(['1 note slurred or slid to from another string is picked.']);
});

test('what is more than a phrase holds is refused; as many bars as fit are offered', () => {
  const file = fileOf(Array.from({ length: 1000 }, (_, i) => [60 + (i % 5), i / 2, 0.5] as const));
  expect(take(file)).toMatchObject({ error: { code: 'take.many' } });
  const fits = lastBar(file, 0, 0, 1);
  expect(fits).toBeGreaterThan(25);
  expect(take(file, 'top', [1, fits]).ok).toBe(true);
  expect(take(file, 'top', [3, 2])).toMatchObject({ error: { code: 'take.bars' } });
  const silent = fileOf([
    [60, 0, 1],
    [60, 40, 20],
    [62, 60, 1],
  ]);
  // A note and a rest last four whole notes at most.
  expect(line(silent)).toBe('60:960 r:15360 r:15360 r:6720 60:15360 r:3840 62:960');
});

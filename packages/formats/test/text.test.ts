import fc from 'fast-check';
import {
  DEFAULT_INSTRUMENT,
  type Key,
  type Neck,
  neckOf,
  note as noteNamed,
  parseTuning,
  scaleById,
} from '@crow-ladder/core';
import { asWritten, type PhraseNote, tuneOf } from '@crow-ladder/core/phrases';
import { tablature } from '@crow-ladder/core/run';
import { drawn } from '../../../scripts/thorough.ts';
import { bytesOf } from '../src/bytes.ts';
import { remarksSaid, taken } from '../src/index.ts';
import { readText } from '../src/text/read.ts';
import { right as ok } from './helpers.ts';

const neckWith = (text: string, frets: number): Neck =>
  neckOf({ ...DEFAULT_INSTRUMENT, tuning: ok(parseTuning(text)).tuning, frets });
const six = neckWith('E2 A2 D3 G3 B3 E4', 22);
const A: Key = { root: noteNamed('A'), scale: scaleById('minor-pentatonic')! };
const HAND = { school: 'onePerFret', spanMm: 110 } as const;

interface TabRead {
  readonly notes: readonly (Omit<PhraseNote, 'at'> & {
    readonly at: { readonly string: number; readonly fret: number } | null;
  })[];
  readonly remarks: readonly string[];
}
type TabTimes = 'even' | 'spaced';
/** A text read as a line of the neck that it is opened on. */
function read(text: string, neck = six, times: TabTimes = 'even') {
  const file = readText(bytesOf(text), {
    open: neck.open,
    untimed: { length: 480, spaced: times === 'spaced' },
  });
  if (!file.ok) return file;
  const { bars, remarks } = file.value;
  const line = taken(file.value, { part: 0, voice: 0, bars: [1, bars.length], chords: 'refuse' });
  if (!line.ok) return line;
  const notes = line.value.tune.map(({ midi, string, ...rest }) => ({
    ...rest,
    at: midi === null ? null : { string: string!, fret: midi - neck.open[string! - 1]! },
  }));
  return { ok: true as const, value: { notes, remarks: [...remarksSaid(remarks), ...line.value.said] } };
}
function right(text: string, neck = six, times: TabTimes = 'even'): TabRead {
  const it = read(text, neck, times);
  if (!it.ok) throw new Error(it.error.message);
  return it.value;
}
const wrong = (text: string, neck = six) => {
  const it = read(text, neck);
  return it.ok ? null : [it.error.code, it.error.message];
};
/** String, fret and what a note has more, in a word. */
const words = ({ notes }: TabRead): readonly string[] =>
  notes.map(({ at, joined, bend, vibrato }) =>
    [
      at ? `${at.string}.${at.fret}` : 'rest',
      joined ?? '',
      bend ? `b${bend.by}${bend.how === 'slowly' ? '>' : ''}${bend.released ? 'r' : ''}` : '',
      vibrato ? '~' : '',
    ]
      .filter((it) => it !== '')
      .join(' '),
  );
const rest = (strings: number): string => '\n-----'.repeat(strings);

describe('tablature as people type it', () => {
  test('with names and bar lines, two digits, slurs, slides, bends, a release, vibrato and a tap', () => {
    const text = [
      'e|--------5h8p5-|--------------|',
      'B|-----8--------|-10b12r10~----|',
      'G|---5----------|-----------t12|',
      'D|-7------------|--------------|',
      'A|--------------|--------------|',
      'E|--------------|-------/7-----|',
    ].join('\n');
    const it = right(text);
    expect(words(it)).toEqual([
      '4.7',
      '3.5',
      '2.8',
      '1.5',
      '1.8 slur',
      '1.5 slur',
      '2.10 b2r ~',
      '6.7',
      '3.12 tap',
    ]);
    expect(it.remarks).toEqual(['Line 6, column 25: a slide from nowhere is left out.']);
    expect(it.notes.every(({ length }) => length === 480)).toBe(true);
  });

  test('without names or bar lines, uneven, with other dashes, words between and a second block', () => {
    const text = `Intro, slowly\n\n-5-8${rest(1)}\n---\n–––––\n-\n------------\n\nthen\n  -----\n  -3---${'\n  -----'.repeat(4)}`;
    const it = right(text);
    expect(words(it)).toEqual(['1.5', '1.8', '2.3']);
    expect(it.remarks).toEqual(['Passed over, as they are no string: line 1, 10.']);
  });

  test('bars of different widths on the strings are laid over each other', () => {
    const it = right('e|-5-|7---|\nB|-------8|---9-|\nG|---|---|\nD|---|---|\nA|---|---|\nE|---|---|');
    expect(words(it)).toEqual(['1.5', '2.8', '1.7', '2.9']);
  });

  test('notes last as far as they stand apart, where that is asked for', () => {
    const it = right(`-5--5----5-5--------${'\n--------------------'.repeat(5)}`, six, 'spaced');
    expect(it.notes.map(({ length }) => length)).toEqual([960, 1440, 480, 480]);
  });

  test('a slur goes over the end of a block', () => {
    const block = (text: string): string => `${text}${'\n-----'.repeat(5)}`;
    expect(words(right(`${block('---5-')}\n\n${block('h7---')}`))).toEqual(['1.5', '1.7 slur']);
  });

  test('the lowest string on top is told by its names', () => {
    const up = 'E|-5-\nA|---\nD|---\nG|---\nB|---\ne|--8';
    const it = right(up);
    expect(words(it)).toEqual(['6.5', '1.8']);
    expect(it.remarks).toEqual(['Line 1, column 2: the lowest string stands on top.']);
    // Four strings, and eight in names of which two are alike.
    const bass = neckWith('E1 A1 D2 G2', 20);
    expect(words(right('G|--2\nD|-4-\nA|---\nE|0--', bass))).toEqual(['4.0', '2.4', '1.2']);
  });

  test('what cannot be read is refused with line and column', () => {
    expect(wrong(`-57-${rest(5)}`)).toEqual([
      'tab.fret',
      'Line 1, column 2: fret 57 is beyond any neck. If two notes were meant, put a dash between them.',
    ]);
    expect(wrong('-5-\n---')).toEqual([
      'tab.strings',
      'Line 1, column 1: 2 lines stand together: name the strings, and they can be read.',
    ]);
    expect(wrong(`-5-${rest(5)}\n\n-5-${rest(4)}`)).toEqual([
      'tab.strings',
      'Line 8, column 1: 5 lines stand together here, and 6 did before: write a line for each string.',
    ]);
    expect(wrong('e|-5-\nB|-6-\nG|---\nD|---\nA|---\nE|---')).toEqual([
      'take.chord',
      'Line 1, column 4: 2 notes sound together, and a phrase has one at a time. Take the top or the bottom line, or fewer bars.',
    ]);
    expect(wrong('e|-5-\n |---\nG|---\nD|---\nA|---\nE|---')).toEqual([
      'tab.names',
      expect.stringContaining('Line 2, column 1: this string has no name'),
    ]);
    expect(wrong(`-5b12-${rest(5)}`)).toEqual([
      'tab.bend',
      expect.stringContaining('Line 1, column 3: a bend from fret 5'),
    ]);
    expect(wrong(`--b7-${rest(5)}`)).toEqual(['tab.bend', 'Line 1, column 3: a bend stands after no note.']);
    expect(wrong(`-5r7-${rest(5)}`)).toEqual(['tab.release', expect.stringContaining('column 3')]);
    expect(wrong(`-5b7r6-${rest(5)}`)).toEqual([
      'tab.release',
      expect.stringContaining('released to 5, not to 6'),
    ]);
    expect(wrong(`-h5-${rest(5)}`)).toEqual([
      'tab.join',
      expect.stringContaining('Line 1, column 2: h joins'),
    ]);
    expect(wrong(`-0b2-${rest(5)}`)).toEqual([
      'tab.bend',
      expect.stringContaining('an open string cannot be bent'),
    ]);
    expect(wrong('nothing here')).toEqual(['tab.none', expect.stringContaining('Line 1, column 1')]);
    expect(wrong(`---${rest(5)}`)).toEqual(['tab.none', expect.stringContaining('no note')]);
  });

  test('strings sound as they are named, or as the words above them say', () => {
    const opened = (text: string): readonly number[] | null => ok(readText(bytesOf(text))).parts[0]!.open;
    const bare = `-5-${rest(5)}`;
    expect(opened('D|-5-\nA|---\nF|---\nD|---\nA|---\nD|---')).toEqual([62, 57, 53, 50, 45, 38]);
    expect(opened(`Tuning: drop D\n${bare}`)).toEqual([64, 59, 55, 50, 45, 38]);
    expect(opened(`tuned down a half step (Eb Ab Db Gb Bb Eb), capo 1\n${bare}`)).toEqual([
      64, 59, 55, 50, 45, 40,
    ]);
    expect(opened(bare)).toEqual([64, 59, 55, 50, 45, 40]);
    expect(opened(`-5-${rest(3)}`)).toEqual([43, 38, 33, 28]);
  });

  test('letters over the strings tell lengths, digits under them fingers; a system may stand close to the next', () => {
    const block = (above: string, frets: string, below: string): string =>
      `${above}\ne|${frets}|${'\nB|--------|\nG|--------|\nD|--------|\nA|--------|\nE|--------|'}\n${below}`;
    const it = right(
      `3/4  Tempo: 96\n${block('   e3 e3 q', '-5--7--8', '   1  3  4>')}\n${block('   qr h', '----5---', '      2')}`,
    );
    expect(
      it.notes.map(({ at, length, finger, accent }) => [at?.fret ?? 'r', length, finger, accent]),
    ).toEqual([
      [5, 320, 1, undefined],
      [7, 320, 3, undefined],
      [8, 960, 4, true],
      ['r', 960, undefined, undefined],
      [5, 1920, 2, undefined],
    ]);
  });

  test('nothing is guessed without a word: muted strokes, bends without a number, brackets, a join across strings', () => {
    const it = right(`-5-x-(7)-7b--${'\n-------------'.repeat(4)}\n-------------`);
    expect(words(it)).toEqual(['1.5', 'rest', '1.7', '1.7 b2']);
    expect(it.remarks).toEqual([
      'Line 1, column 4: a muted stroke is kept as a rest.',
      'Line 1, column 6: a note in brackets is taken as any other.',
      'Line 1, column 11: a bend without a number is taken as one of a whole step.',
    ]);
    const cut = right(`-5---h7${rest(0)}\n---6---${'\n-------'.repeat(4)}`);
    expect(words(cut)).toEqual(['1.5', '2.6', '1.7']);
    expect(cut.remarks).toEqual(['1 note slurred or slid to from another string is picked.']);
  });

  test('any text is read or refused, never half', () => {
    const sign = fc.constantFrom(...'-|0123456789hpbrs/\\~xXtv()eBE \n½>');
    fc.assert(
      fc.property(fc.string({ unit: sign, maxLength: 120 }), (text) => {
        const it = read(text);
        if (!it.ok) return expect(it.error.message).toMatch(/^(Line \d+, column \d+: |This has)/);
        for (const { at, length } of it.value.notes) {
          expect(length).toBe(480);
          if (at) expect(at.string >= 1 && at.string <= 6 && at.fret >= 0 && at.fret <= 22).toBe(true);
        }
      }),
      { numRuns: drawn(3000) },
    );
  });

  test('what this application writes as text it reads back: strings, frets, slurs, bends and their ways', () => {
    const note: fc.Arbitrary<PhraseNote> = fc.record(
      {
        at: fc.record({ string: fc.integer({ min: 1, max: 6 }), fret: fc.integer({ min: 1, max: 19 }) }),
        length: fc.constantFrom(240, 480, 960),
        joined: fc.constantFrom('slur' as const, 'slide' as const),
        bend: fc.record({
          by: fc.integer({ min: 1, max: 6 }).map((n) => n / 2),
          how: fc.constantFrom('once' as const, 'slowly' as const),
          released: fc.boolean(),
        }),
        vibrato: fc.constant({ cents: 40, waves: 5 }),
      },
      { requiredKeys: ['at', 'length'] },
    );
    let joined = 0;
    fc.assert(
      fc.property(fc.array(note, { minLength: 1, maxLength: 12 }), (notes) => {
        const ground = { neck: six, key: A, hand: HAND, plain: 3, tempo: 90 };
        const way = asWritten(ground, tuneOf(notes, six.open))!;
        const it = right(tablature(way.run, six, { width: 60 }));
        expect(it.notes).toHaveLength(way.run.length);
        it.notes.forEach(({ at, joined: how, bend, vibrato }, i) => {
          const { spot, arrive, bend: bent, vibrato: held } = way.run[i]!;
          expect(at).toEqual({ string: spot.string, fret: spot.fret });
          expect([bend, vibrato]).toEqual([bent, held]);
          const is =
            arrive === 'hammer' || arrive === 'pull' ? 'slur' : arrive === 'pick' ? undefined : arrive;
          expect(how).toBe(is);
          if (is) joined++;
        });
      }),
      { numRuns: drawn(400) },
    );
    expect(joined).toBeGreaterThan(drawn(20));
  });
});

import fc from 'fast-check';
import { drawn } from '../../../scripts/thorough.ts';
import {
  asWritten,
  type PhraseNote,
  readTab,
  tablature,
  type TabRead,
  type TabTimes,
  tuneOf,
} from './core.ts';
import { HAND, key, neckWith } from './helpers.ts';

const six = neckWith('E2 A2 D3 G3 B3 E4', 22);
const A = key('A', 'minor-pentatonic');
const read = (text: string, neck = six, times: TabTimes = 'even') =>
  readTab(text, neck, 480, times, 'sharps');
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
      'Line 1, column 2: fret 57 is beyond the last one, 22. If two notes were meant, put a dash between them.',
    ]);
    expect(wrong(`-5-${rest(4)}`)).toEqual([
      'tab.strings',
      'Line 1, column 1: 5 lines stand together, and this instrument has 6 strings: write a line for each of them.',
    ]);
    expect(wrong('e|-5-\nB|-6-\nG|---\nD|---\nA|---\nE|---')).toEqual([
      'tab.chord',
      expect.stringMatching(/^Line [12], column 4: two notes stand above each other/),
    ]);
    expect(wrong('D|-5-\nA|---\nF|---\nD|---\nA|---\nD|---')).toEqual([
      'tab.names',
      'Line 1, column 1: this string is named D, and string 1 of this instrument is E. Change the tuning, or leave the names out to read it by fret.',
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
    expect(cut.remarks).toEqual([
      'Line 1, column 7: another string sounds between: the note is taken as picked.',
    ]);
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

import { type PhraseNote } from '@crow-ladder/core/phrases';
import fc from 'fast-check';
import { drawn } from '../../../scripts/thorough.ts';
import { FIRST_STATE, type KeptPhrase, phraseFrom, phraseWord } from '../src/index.ts';
import { readDocument } from '../src/schemas.ts';

const PHRASE: KeptPhrase = {
  type: 'phrase',
  name: 'Cabin lick',
  tags: ['bend'],
  root: 'A',
  scale: 'minor-pentatonic',
  open: [64, 59, 55, 50, 45, 40],
  beats: 4,
  notes: [{ at: { string: 3, fret: 7 }, length: 480 }],
};
const kept = (phrase: unknown) => {
  const read = readDocument({ ...FIRST_STATE, phrases: [phrase] });
  return read.ok ? read.value.phrases[0] : [read.error.field, read.error.message];
};
const withNote = (note: unknown) => kept({ ...PHRASE, notes: [PHRASE.notes[0], note] });

const anyNote: fc.Arbitrary<PhraseNote> = fc.record(
  {
    at: fc.option(fc.record({ string: fc.integer({ min: 1, max: 6 }), fret: fc.nat(36) })),
    length: fc.integer({ min: 120, max: 15_360 }),
    joined: fc.constantFrom('slur' as const, 'slide' as const, 'tap' as const),
    bend: fc.record({
      by: fc.integer({ min: 1, max: 6 }).map((q) => q / 2),
      how: fc.constantFrom('once' as const, 'slowly' as const),
      released: fc.boolean(),
    }),
    vibrato: fc.record({ cents: fc.integer({ min: 10, max: 100 }), waves: fc.integer({ min: 3, max: 9 }) }),
    accent: fc.constant(true as const),
    finger: fc.integer({ min: 1, max: 4 }),
  },
  { requiredKeys: ['at', 'length'] },
);

test('a phrase goes into a document and into a word of an address, and comes out as it was', () => {
  fc.assert(
    fc.property(
      fc.array(anyNote, { maxLength: 8 }),
      fc.constantFrom('Cabin lick', 'Pier; north_1', 'r_960 2.8'),
      fc.array(fc.constantFrom('bend', 'low tide', 'a;b', '50 %'), { maxLength: 3 }),
      (notes, name, tags) => {
        const phrase = { ...PHRASE, notes, name, tags };
        expect(kept(phrase)).toEqual(phrase);
        expect(phraseFrom(phraseWord(phrase))).toEqual(phrase);
      },
    ),
    { numRuns: drawn(500) },
  );
});

test('what a later application keeps of phrases is kept as it is', () => {
  const later = { type: 'duet', name: 'x', notes: 3 };
  expect(kept(later)).toEqual(later);
  expect(phraseFrom(phraseWord(later))).toEqual(later);
});

test('a phrase is refused by the field that is wrong, and nothing of it is guessed', () => {
  expect(kept({ ...PHRASE, name: ' ' })).toEqual(['phrases[0].name', 'A phrase has no name.']);
  expect(kept({ ...PHRASE, scale: 'no-such-scale' })).toEqual([
    'phrases[0].scale',
    expect.stringContaining('not known'),
  ]);
  expect(withNote({ at: { string: 7, fret: 1 }, length: 480 })).toEqual([
    'phrases[0].notes[1].at.string',
    'This phrase has 6 strings.',
  ]);
  expect(withNote({ at: null, length: 119 })).toEqual(['phrases[0].notes[1].length', expect.any(String)]);
  expect(withNote({ at: null, length: 480, finger: 5 })).toEqual([
    'phrases[0].notes[1].finger',
    expect.any(String),
  ]);
  expect(withNote({ at: null, length: 480, joined: 'glue' })).toEqual([
    'phrases[0].notes[1].joined',
    expect.any(String),
  ]);
  expect(kept({ ...PHRASE, notes: Array.from({ length: 501 }, () => PHRASE.notes[0]) })).toEqual([
    'phrases[0].notes',
    'A phrase has at most 500 notes and rests.',
  ]);
  for (const word of ['', 'phrase;A', 'phrase;A;major;x;4;zz;%E0%A4%A;name']) {
    const read = phraseFrom(word);
    expect(read === null || Array.isArray(kept(read))).toBe(true);
  }
});

import { type Degree, degreeName } from '../degree.ts';
import { accidental, pretty } from '../note.ts';
import { type Chord } from './chord.ts';

/** How Roman numerals tell the kind of a chord: by small letters and signs, or in capitals with what is written after a root. */
export const ROMAN_WAYS = [
  { id: 'case', name: 'ii, V7, viiø7' },
  { id: 'capitals', name: 'IIm, V7, VIIm7♭5' },
] as const;
export type RomanWay = (typeof ROMAN_WAYS)[number]['id'];

/** The places of a scale. */
export const NUMERALS = ['I', 'II', 'III', 'IV', 'V', 'VI', 'VII'] as const;
/** What small letters and signs say in place of what is written after a root. */
const SIGNS: readonly (readonly [plain: RegExp, sign: string])[] = [
  [/^m7b5/, 'ø7'],
  [/^dim/, '°'],
  [/^aug$/, '+'],
  [/^m(?!aj)/, ''],
];

/**
 * A chord by its place in a key, counted from the major scale on the key's root: "♭III" is the chord on the lowered third. A chord without a
 * name is told by its place alone.
 *
 * @example romanOf({ number: 7, alteration: 0 }, { degrees: ['1', 'b3', 'b5', 'b7'].map(degree), suffix: 'm7b5' }, 'case') // "viiø7"
 */
export function romanOf(
  at: Degree,
  { degrees, suffix }: Pick<Chord, 'degrees' | 'suffix'>,
  way: RomanWay,
): string {
  const place = pretty(`${accidental(at.alteration)}1`).slice(0, -1);
  const numeral = NUMERALS[at.number - 1]!;
  if (way === 'capitals') return place + numeral + pretty(suffix ?? '');
  const isMinor = degrees.some((d) => degreeName(d) === 'b3');
  const [plain, sign] = SIGNS.find(([of]) => of.test(suffix ?? '')) ?? [/^/, ''];
  return place + (isMinor ? numeral.toLowerCase() : numeral) + pretty((suffix ?? '').replace(plain, sign));
}

const LISTS = {
  and: new Intl.ListFormat('en-GB', { type: 'conjunction' }),
  or: new Intl.ListFormat('en-GB', { type: 'disjunction' }),
};
/**
 * Joins words as a player would say them: "1, 2 and 3".
 *
 * @example list([1, 2, 3]) // "1, 2 and 3"
 */
export const list = (words: readonly (string | number)[], last: 'and' | 'or' = 'and'): string =>
  LISTS[last].format(words.map(String));

/**
 * A text with a capital letter at its beginning.
 *
 * @example capital('natural minor') // "Natural minor"
 */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1);

const COUNT = new Intl.PluralRules('en-GB');
/**
 * "1 fret", "2 frets".
 *
 * @example plural(2, 'fret') // "2 frets"
 */
export const plural = (n: number, word: string): string =>
  `${n} ${word}${COUNT.select(n) === 'one' ? '' : 's'}`;

const ORDINALS = ['zeroth', 'first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh'];
const ORDER = new Intl.PluralRules('en-GB', { type: 'ordinal' });
const SUFFIXES: Readonly<Record<string, string>> = { one: 'st', two: 'nd', few: 'rd' };
/**
 * 1 → "first" … 7 → "seventh", then "8th" and so on.
 *
 * @example ordinal(3) // "third"
 */
export const ordinal = (n: number): string => ORDINALS[n] ?? `${n}${SUFFIXES[ORDER.select(n)] ?? 'th'}`;

const ROMAN: readonly (readonly [number, string])[] = [
  [10, 'X'],
  [9, 'IX'],
  [5, 'V'],
  [4, 'IV'],
  [1, 'I'],
];
/**
 * Roman numeral of a fret, 1 to 39; 0 is "open".
 *
 * @example roman(9) // "IX"
 */
export function roman(fret: number): string {
  if (fret === 0) return 'open';
  let rest = fret;
  let out = '';
  for (const [value, sign] of ROMAN) while (rest >= value) [out, rest] = [out + sign, rest - value];
  return out;
}

/**
 * A position by the fret under the index finger: "position V"; at the nut "open position".
 *
 * @example positionAt(5) // "position V"
 */
export const positionAt = (fret: number): string =>
  fret === 0 ? 'open position' : `position ${roman(fret)}`;

const NUMBERS = 'no one two three four five six seven eight nine ten eleven twelve'.split(' ');
/**
 * 3 → "three".
 *
 * @example numberWord(3) // "three"
 */
export const numberWord = (n: number): string => NUMBERS[n] ?? String(n);

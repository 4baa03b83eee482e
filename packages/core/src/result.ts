/** Why something a person typed or chose could not be used. `code` is stable; `message` is for the player. */
export interface Refusal {
  readonly code: string;
  readonly message: string;
}

/** A value, or a refusal. Core throws only on misuse by code, never on input that a person typed. */
export type Result<T, E = Refusal> =
  { readonly ok: true; readonly value: T } | { readonly ok: false; readonly error: E };

export const ok = <T>(value: T): { readonly ok: true; readonly value: T } => ({ ok: true, value });

export const refuse = (code: string, message: string): { readonly ok: false; readonly error: Refusal } => ({
  ok: false,
  error: { code, message },
});

const LISTS = {
  and: new Intl.ListFormat('en-GB', { type: 'conjunction' }),
  or: new Intl.ListFormat('en-GB', { type: 'disjunction' }),
};
/** Joins words as a player would say them: "1, 2 and 3". */
export const list = (words: readonly (string | number)[], last: 'and' | 'or' = 'and'): string =>
  LISTS[last].format(words.map(String));

const COUNT = new Intl.PluralRules('en-GB');
/** "1 fret", "2 frets". */
export const plural = (n: number, word: string): string =>
  `${n} ${word}${COUNT.select(n) === 'one' ? '' : 's'}`;

/** Remainder that is never negative. */
export const mod = (n: number, m: number): number => ((n % m) + m) % m;

/** The greatest common divisor of whole numbers. */
export const gcd = (a: number, b: number): number => (b ? gcd(b, a % b) : a);

/** A value made when it is first asked for, and kept. */
export function lazily<T>(make: () => T): () => T {
  let made: { readonly value: T } | null = null;
  return () => (made ??= { value: make() }).value;
}

const ORDINALS = ['zeroth', 'first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh'];
const ORDER = new Intl.PluralRules('en-GB', { type: 'ordinal' });
const SUFFIXES: Readonly<Record<string, string>> = { one: 'st', two: 'nd', few: 'rd' };
/** 1 → "first" … 7 → "seventh", then "8th" and so on. */
export const ordinal = (n: number): string => ORDINALS[n] ?? `${n}${SUFFIXES[ORDER.select(n)] ?? 'th'}`;

const ROMAN: readonly (readonly [number, string])[] = [
  [10, 'X'],
  [9, 'IX'],
  [5, 'V'],
  [4, 'IV'],
  [1, 'I'],
];
/** Roman numeral of a fret, 1 to 39; 0 is "open". */
export function roman(fret: number): string {
  if (fret === 0) return 'open';
  let rest = fret;
  let out = '';
  for (const [value, sign] of ROMAN) while (rest >= value) [out, rest] = [out + sign, rest - value];
  return out;
}

/** A position by the fret under the index finger: "position V"; at the nut "open position". */
export const positionAt = (fret: number): string =>
  fret === 0 ? 'open position' : `position ${roman(fret)}`;

const NUMBERS = 'no one two three four five six seven eight nine ten eleven twelve'.split(' ');
/** 3 → "three". */
export const numberWord = (n: number): string => NUMBERS[n] ?? String(n);

import { QUARTER } from '@crow-ladder/core/run';

/** Letters of note lengths over tablature, in ticks. */
const VALUES = [
  ['w', 4 * QUARTER],
  ['h', 2 * QUARTER],
  ['q', QUARTER],
  ['e', QUARTER / 2],
  ['s', QUARTER / 4],
  ['t', QUARTER / 8],
] as const;
/** What may stand behind a letter: a dot, or that so many stand in the time of fewer. */
const MORE = [
  ['', 1],
  ['.', 3 / 2],
  ['3', 2 / 3],
  ['5', 4 / 5],
  ['7', 4 / 7],
  ['3.', 1],
  ['5.', 6 / 5],
  ['7.', 6 / 7],
] as const;
const WORDS = new Map(
  VALUES.flatMap(([letter, ticks]) =>
    MORE.map(([more, part]): readonly [string, number] => [letter + more, ticks * part]),
  ),
);
/** What a tie between two lengths is written as, and what stands behind a rest. */
const TIE = '+';
const REST = 'r';

/** What the letters mean, as it stands beside them. */
export const RHYTHM_SAID =
  'w whole, h half, q quarter, e eighth, s sixteenth, t 32nd; . dotted, 3 of a triplet, + tied, r rest';

/** A length over a column of tablature. */
export interface Length {
  readonly ticks: number;
  readonly rest: boolean;
}

/**
 * A word over tablature as a length, in ticks that may be broken numbers; null where it is none.
 *
 * @example lengthIn('e3r') // { ticks: 320, rest: true }
 */
export function lengthIn(word: string): Length | null {
  const rest = word.endsWith(REST);
  const parts = (rest ? word.slice(0, -1) : word).split(TIE).map((it) => WORDS.get(it));
  return parts.every((it) => it !== undefined)
    ? { ticks: parts.reduce((sum: number, it) => sum + it, 0), rest }
    : null;
}

const near = (a: number, b: number): boolean => Math.abs(a - b) <= 1;
const TABLE = [...WORDS].sort(([a], [b]) => a.length - b.length);
/** At most so many lengths are tied within a whole note. */
const TIED = 3;

function tied(ticks: number, most: number): readonly string[] | null {
  const one = TABLE.find(([, it]) => near(it, ticks));
  if (one) return [one[0]];
  if (most === 1) return null;
  for (const [word, it] of TABLE) {
    const rest = it < ticks - 1 ? tied(ticks - it, most - 1) : null;
    if (rest) return [word, ...rest];
  }
  return null;
}
const known = new Map<number, string>();
/**
 * A length in ticks as it is written over tablature; what no three letters say is written as the nearest 32nd.
 *
 * @example lengthWord(1440, false) // "q."
 */
export function lengthWord(ticks: number, rest: boolean): string {
  const wholes = Math.max(0, Math.ceil(ticks / VALUES[0][1]) - 1);
  const left = ticks - wholes * VALUES[0][1];
  let word = known.get(left);
  if (word === undefined) {
    const least = VALUES.at(-1)![1];
    word =
      (tied(left, 1) ?? tied(left, 2) ?? tied(left, TIED) ?? []).join(TIE) ||
      (tied(Math.max(1, Math.round(left / least)) * least, TIED) ?? ['t']).join(TIE);
    known.set(left, word);
  }
  return [...Array.from({ length: wholes }, () => 'w'), word].join(TIE) + (rest ? REST : '');
}

import { LIMITS } from './instrument.ts';
import {
  type Accidentals,
  midiName,
  parseNote,
  parsePitch,
  pitchClass,
  pitchClassName,
  type PitchClass,
} from './note.ts';
import { mod } from './arithmetic.ts';
import { ok, refuse, type Result } from './result.ts';

export interface ParsedTuning {
  /** MIDI numbers as typed, the lowest string first. */
  readonly tuning: readonly number[];
  /** True where at least one octave was left out and had to be found. */
  readonly guessed: boolean;
  /** Other instruments that the same letters may mean, such as a bass for the low strings of a guitar. */
  readonly also: readonly (readonly number[])[];
}

/** Instruments that a number of strings suggests when octaves are left out; four and five are basses first. */
const USUAL: Readonly<Record<number, readonly (readonly number[])[]>> = {
  3: [[40, 45, 50]],
  4: [[28, 33, 38, 43]],
  5: [
    [23, 28, 33, 38, 43],
    [28, 33, 38, 43, 48],
  ],
  6: [
    [40, 45, 50, 55, 59, 64],
    [35, 40, 45, 50, 54, 59],
    [23, 28, 33, 38, 43, 48],
  ],
  7: [[35, 40, 45, 50, 55, 59, 64]],
  8: [[30, 35, 40, 45, 50, 55, 59, 64]],
  9: [[25, 30, 35, 40, 45, 50, 55, 59, 64]],
  10: [[20, 25, 30, 35, 40, 45, 50, 55, 59, 64]],
  11: [[20, 25, 30, 35, 40, 45, 50, 55, 59, 64, 69]],
  12: [[20, 25, 30, 35, 40, 45, 50, 55, 59, 64, 69, 74]],
};

/** Raising a string strains it more than lowering it loosens it, so upward counts triple beyond a whole step. */
const strain = (by: number): number => (by < 0 ? -by : by <= 2 ? by : 3 * by);
const NOT_RISING = 40;
/** Another number of strings than the instrument at hand has is a little less likely. */
const OTHER_COUNT = 2;
/** So is another instrument than the one at hand. */
const ELSEWHERE = 3;
/**
 * The usual tuning of as many strings that is nearest to one, MIDI numbers from the lowest string.
 *
 * @example usualTuning([38, 45, 50, 55, 57, 62]) // [40,45,50,55,59,64]
 */
export function usualTuning(tuning: readonly number[]): readonly number[] {
  const far = (usual: readonly number[]): number =>
    usual.reduce((sum, midi, i) => sum + Math.abs(midi - tuning[i]!), 0);
  return USUAL[tuning.length]!.reduce((best, usual) => (far(usual) < far(best) ? usual : best));
}

/** A string is tuned at most this many half steps away from the usual one. */
const FURTHEST = 7;

type Fixed = { readonly midi: number } | { readonly pc: PitchClass };

/** Strings with their octaves, and how far they are from those of the instrument that they were compared with. */
interface Placed {
  readonly cost: number;
  readonly path: readonly number[];
}

/** The octaves closest to the usual strings that also rise where those do, by dynamic programming. */
function placeOctaves(strings: readonly Fixed[], usual: readonly number[]): Placed {
  const choices = strings.map((s, i): number[] => {
    if ('midi' in s) return [s.midi];
    const least = usual[i]! - FURTHEST;
    const lowest = least + mod(s.pc - least, 12);
    return [lowest, lowest + 12].filter((m) => m <= usual[i]! + FURTHEST);
  });
  let best: readonly Placed[] = [{ cost: 0, path: [] }];
  choices.forEach((options, i) => {
    const rises = i > 0 && usual[i]! > usual[i - 1]!;
    best = options.map((midi) => {
      const from = best
        .map((b) => {
          const last = b.path.at(-1);
          const rise = rises && midi <= last! ? NOT_RISING : 0;
          return { cost: b.cost + strain(midi - usual[i]!) + rise, path: [...b.path, midi] };
        })
        .sort((a, b) => a.cost - b.cost);
      return from[0]!;
    });
  });
  return [...best].sort((a, b) => a.cost - b.cost)[0]!;
}

/** One string as typed: its letter, sharps or flats, perhaps its octave. */
const STRING = /^[A-Ga-g](?:[#♯]+|♭+|b|x)?\d*/;

/** Every way to cut letters written without spaces into strings: in small letters `b` is a flat or a string of its own. */
function cuts(text: string): readonly (readonly string[])[] {
  if (!text) return [[]];
  const longest = STRING.exec(text);
  if (!longest) return [];
  const small = text === text.toLowerCase() && /^[a-g]b/.test(text);
  const firsts = [longest[0], ...(small ? [text[0]!] : [])];
  return firsts.flatMap((first) => cuts(text.slice(first.length)).map((rest) => [first, ...rest]));
}

/** The instruments whose strings typed letters are compared with: the one at hand or its low or high strings, then the usual ones. */
function instrumentsOf(count: number, at?: readonly number[]) {
  const here = at && at.length >= count ? [at.slice(0, count), at.slice(at.length - count)] : [];
  const elsewhere = here.length ? ELSEWHERE : 0;
  return [
    ...here.map((usual) => ({ usual, more: 0 })),
    ...USUAL[count]!.map((usual) => ({ usual, more: elsewhere })),
  ];
}

/**
 * Reads a tuning from the lowest string to the highest: `E2 A2 D3 G3 B3 E4`, or without octaves `D A D G A D`, `dadgad`,
 * where the octaves are those closest to the strings of the instrument at hand (all of them, or its lowest or highest
 * ones where fewer are typed), else to an instrument that is usual for their number.
 * Codes: `tuning.count`, `tuning.note`, `tuning.range`.
 *
 * @example parseTuning('D A D G A D').value?.tuning // [38,45,50,55,57,62]
 */
export function parseTuning(text: string, at?: readonly number[]): Result<ParsedTuning> {
  const typed = text.trim();
  const spaced = typed.split(/[\s,]+|[–-](?=[A-Ga-g])/).filter(Boolean);
  const [min, max] = LIMITS.strings;
  const counts = (parts: readonly string[]): boolean => parts.length >= min && parts.length <= max;
  const readings = spaced.length === 1 ? cuts(typed).filter(counts) : [spaced];
  const parts = readings[0] ?? spaced;
  if (!counts(parts))
    return refuse('tuning.count', `A tuning has ${min} to ${max} strings; “${typed}” has ${parts.length}.`);
  const found: Placed[] = [];
  let guessed = false;
  for (const reading of readings) {
    const strings: Fixed[] = [];
    for (const part of reading) {
      const pitch = parsePitch(part);
      const note = parseNote(part);
      if (pitch.ok) strings.push({ midi: pitch.value });
      else if (note.ok) strings.push({ pc: pitchClass(note.value) });
      else
        return refuse(
          'tuning.note',
          `“${part}” is not a string: write a note such as D or F#2, lowest string first.`,
        );
    }
    guessed ||= strings.some((s) => 'pc' in s);
    const other = at && at.length !== strings.length ? OTHER_COUNT : 0;
    for (const { usual, more } of instrumentsOf(strings.length, at)) {
      const { cost, path } = placeOctaves(strings, usual);
      found.push({ cost: cost + other + more, path });
    }
  }
  // Sorting keeps the order of those that are equally near: the instrument at hand goes before the usual ones.
  const [best, ...others] = found.sort((a, b) => a.cost - b.cost);
  const tuning = best!.path;
  const odd = tuning.find((m) => m < LIMITS.midi[0] || m > LIMITS.midi[1]);
  if (odd !== undefined)
    return refuse(
      'tuning.range',
      `${midiName(odd)} is outside what strings can be tuned to: use ${midiName(LIMITS.midi[0])} to ${midiName(LIMITS.midi[1])}.`,
    );
  const near = others.filter((o) => o.cost <= best!.cost + tuning.length);
  const also = new Map(near.map(({ path }) => [path.join(), path]));
  also.delete(tuning.join());
  return ok({ tuning, guessed, also: guessed ? [...also.values()] : [] });
}

/** A♯ and D♯ name no string by themselves: a tuning that has one of them and no C♯ is written with flats (common practice, no source). */
const usualAccidentals = (tuning: readonly number[]): Accidentals => {
  const has = (pc: number): boolean => tuning.some((midi) => mod(midi, 12) === pc);
  return (has(10) || has(3)) && !has(1) ? 'flats' : 'sharps';
};

/**
 * A tuning as text with octaves, the lowest string first.
 *
 * @example tuningText([38, 43, 50, 55, 58, 62]) // "D2 G2 D3 G3 Bb3 D4"
 */
export const tuningText = (
  tuning: readonly number[],
  accidentals: Accidentals = usualAccidentals(tuning),
): string => tuning.map((m) => midiName(m, accidentals)).join(' ');

/**
 * A tuning as players say it, without octaves.
 *
 * @example tuningLetters([40, 45, 50, 55, 59, 64]) // "E A D G B E"
 */
export const tuningLetters = (tuning: readonly number[], accidentals: Accidentals = 'sharps'): string =>
  tuning.map((m) => pitchClassName(m, accidentals)).join(' ');

/** Two neighbouring strings: `interval` in half steps from the lower-numbered end upward, and the jog 5 − interval. */
export interface Crossing {
  /** String number of the lower string. */
  readonly from: number;
  readonly to: number;
  readonly interval: number;
  readonly jog: number;
}

/**
 * The crossings of a tuning from the lowest string up. A jog of 0 is a fourth; +1 moves a shape one fret up.
 *
 * @example crossings([40, 45, 50, 55, 59, 64]).map((c) => c.jog) // [0,0,0,1,0]
 */
export const crossings = (tuning: readonly number[]): readonly Crossing[] =>
  tuning.slice(1).map((midi, i) => {
    const interval = midi - tuning[i]!;
    return { from: tuning.length - i, to: tuning.length - i - 1, interval, jog: 5 - interval };
  });

const INTERVALS = [
  'unison',
  'minor second',
  'major second',
  'minor third',
  'major third',
  'fourth',
  'tritone',
  'fifth',
  'minor sixth',
  'major sixth',
  'minor seventh',
  'major seventh',
  'octave',
];
/**
 * Name of an interval in half steps, 0 to 12 by name, larger ones as a number.
 *
 * @example intervalName(5) // "fourth"
 */
export const intervalName = (halfSteps: number): string =>
  INTERVALS[Math.abs(halfSteps)] ?? `${Math.abs(halfSteps)} half steps`;

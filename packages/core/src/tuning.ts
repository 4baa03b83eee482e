import { LIMITS } from './instrument.ts';
import { midiName, parseNote, parsePitch, pitchClass, type PitchClass } from './note.ts';
import { mod, ok, refuse, type Result } from './result.ts';

export interface ParsedTuning {
  /** MIDI numbers as typed, the lowest string first. */
  readonly tuning: readonly number[];
  /** True where at least one octave was left out and had to be found. */
  readonly guessed: boolean;
}

/** Strings that a string count suggests when octaves are left out: four and five are basses. */
const USUAL: Readonly<Record<number, readonly number[]>> = {
  3: [40, 45, 50],
  4: [28, 33, 38, 43],
  5: [23, 28, 33, 38, 43],
  6: [40, 45, 50, 55, 59, 64],
  7: [35, 40, 45, 50, 55, 59, 64],
  8: [30, 35, 40, 45, 50, 55, 59, 64],
  9: [25, 30, 35, 40, 45, 50, 55, 59, 64],
  10: [20, 25, 30, 35, 40, 45, 50, 55, 59, 64],
  11: [20, 25, 30, 35, 40, 45, 50, 55, 59, 64, 69],
  12: [20, 25, 30, 35, 40, 45, 50, 55, 59, 64, 69, 74],
};

/** Raising a string strains it more than lowering it loosens it, so upward counts triple beyond a whole step. */
const strain = (by: number): number => (by < 0 ? -by : by <= 2 ? by : 3 * by);
const NOT_RISING = 40;

type Fixed = { readonly midi: number } | { readonly pc: PitchClass };

/** The octaves closest to the usual strings that also rise from string to string, by dynamic programming. */
function placeOctaves(strings: readonly Fixed[], usual: readonly number[]): readonly number[] {
  const [low, high] = LIMITS.midi;
  const choices = strings.map((s): number[] => {
    if ('midi' in s) return [s.midi];
    const all: number[] = [];
    for (let m = low + mod(s.pc - low, 12); m <= high; m += 12) all.push(m);
    return all;
  });
  let best: { cost: number; path: number[] }[] = [{ cost: 0, path: [] }];
  choices.forEach((options, i) => {
    best = options.map((midi) => {
      const from = best
        .map((b) => {
          const last = b.path.at(-1);
          const rise = last === undefined || midi > last ? 0 : NOT_RISING;
          return { cost: b.cost + strain(midi - usual[i]!) + rise, path: [...b.path, midi] };
        })
        .sort((a, b) => a.cost - b.cost);
      return from[0]!;
    });
  });
  return best.sort((a, b) => a.cost - b.cost)[0]!.path;
}

/**
 * Reads a tuning from the lowest string to the highest: `E2 A2 D3 G3 B3 E4`, or without octaves `D A D G A D`,
 * where sensible octaves are found close to `usual` (or to what the number of strings suggests).
 * Codes: `tuning.count`, `tuning.note`, `tuning.range`.
 */
export function parseTuning(text: string, usual?: readonly number[]): Result<ParsedTuning> {
  const spaced = /[\s,]/.test(text.trim()) ? text : text.replace(/(?=[A-G])/g, ' ');
  const parts = spaced
    .trim()
    .split(/[\s,]+|[–-](?=[A-Ga-g])/)
    .filter(Boolean);
  const [min, max] = LIMITS.strings;
  if (parts.length < min || parts.length > max)
    return refuse(
      'tuning.count',
      `A tuning has ${min} to ${max} strings; “${text.trim()}” has ${parts.length}.`,
    );
  const strings: Fixed[] = [];
  for (const part of parts) {
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
  const near = usual?.length === parts.length ? usual : USUAL[parts.length]!;
  const tuning = placeOctaves(strings, near);
  const odd = tuning.find((m) => m < LIMITS.midi[0] || m > LIMITS.midi[1]);
  if (odd !== undefined)
    return refuse(
      'tuning.range',
      `${midiName(odd)} is outside what strings can be tuned to: use ${midiName(LIMITS.midi[0])} to ${midiName(LIMITS.midi[1])}.`,
    );
  return ok({ tuning, guessed: strings.some((s) => 'pc' in s) });
}

/** A tuning as text with octaves, the lowest string first. */
export const tuningText = (tuning: readonly number[]): string => tuning.map((m) => midiName(m)).join(' ');

/** A tuning as players say it, without octaves. */
export const tuningLetters = (tuning: readonly number[]): string =>
  tuning.map((m) => midiName(m).replace(/-?\d+$/, '')).join(' ');

/** Two neighbouring strings: `interval` in half steps from the lower-numbered end upward, and the jog 5 − interval. */
export interface Crossing {
  /** String number of the lower string. */
  readonly from: number;
  readonly to: number;
  readonly interval: number;
  readonly jog: number;
}

/** The crossings of a tuning from the lowest string up. A jog of 0 is a fourth; +1 moves a shape one fret up. */
export const crossings = (tuning: readonly number[]): readonly Crossing[] =>
  tuning.slice(1).map((midi, i) => {
    const interval = midi - tuning[i]!;
    return { from: tuning.length - i, to: tuning.length - i - 1, interval, jog: 5 - interval };
  });

const INTERVALS = ['unison', 'minor second', 'major second', 'minor third', 'major third', 'fourth', 'tritone', 'fifth',
  'minor sixth', 'major sixth', 'minor seventh', 'major seventh', 'octave']; // prettier-ignore
/** Name of an interval in half steps, 0 to 12 by name, larger ones as a number. */
export const intervalName = (halfSteps: number): string =>
  INTERVALS[Math.abs(halfSteps)] ?? `${Math.abs(halfSteps)} half steps`;

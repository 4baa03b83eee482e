import { accidental, alterationOf, LETTERS, type Note, pitchClass } from './note.ts';
import { mod } from './arithmetic.ts';
import { ok, refuse, type Result } from './result.ts';

/** A scale degree measured against the major scale of the same root: b3 is { number: 3, alteration: −1 }. */
export interface Degree {
  /** 1 to 7. */
  readonly number: number;
  /** Half steps: −1 flat, +1 sharp. */
  readonly alteration: number;
}

/** Half steps of the major scale's degrees above the root. */
export const MAJOR = [0, 2, 4, 5, 7, 9, 11] as const;

/**
 * A degree as it is typed.
 *
 * @example degreeName({ number: 3, alteration: -1 }) // "b3"
 */
export const degreeName = (degree: Degree): string => accidental(degree.alteration) + String(degree.number);

/**
 * Half steps above the root, 0 to 11.
 *
 * @example degreeHalfSteps({ number: 5, alteration: -1 }) // 6
 */
export const degreeHalfSteps = (degree: Degree): number =>
  mod(MAJOR[degree.number - 1]! + degree.alteration, 12);

const INTERVALS = ['1', 'b2', '2', 'b3', '3', '4', 'b5', '5', 'b6', '6', 'b7', '7'];
/**
 * What an interval of half steps above a root is called where no scale or chord spells it.
 *
 * @example chromaticName(15) // "b3"
 */
export const chromaticName = (halfSteps: number): string => INTERVALS[mod(halfSteps, 12)]!;

const DEGREE = /^([#♯x𝄪]*|[b♭𝄫]*)(1[0-4]|[1-9])$/u;

/**
 * Reads "b3", "♯4", "9" (an upper degree is the same note an octave down). Code `degree.unknown`.
 *
 * @example parseDegree('b3') // {"ok":true,"value":{"number":3,"alteration":-1}}
 */
export function parseDegree(text: string): Result<Degree> {
  const match = DEGREE.exec(text.trim());
  const alteration = alterationOf(match?.[1] ?? '');
  if (!match || Math.abs(alteration) > 2)
    return refuse(
      'degree.unknown',
      `“${text}” is not a degree: write 1 to 7 with # or b before it, such as b3 or #4.`,
    );
  return ok({ number: mod(Number(match[2]) - 1, 7) + 1, alteration });
}

/**
 * The degree of a name known to be good; throws on a bad one.
 *
 * @example degree('b3') // {"number":3,"alteration":-1}
 */
export function degree(name: string): Degree {
  const parsed = parseDegree(name);
  if (!parsed.ok) throw new Error(parsed.error.message);
  return parsed.value;
}

/**
 * Spells a degree from a root: the letter follows the degree number, the accidental follows the half steps.
 *
 * @example noteName(spellDegree(note('A'), degree('b3'))) // "C"
 */
export function spellDegree(root: Note, of: Degree): Note {
  const letter = LETTERS[(LETTERS.indexOf(root.letter) + of.number - 1) % 7]!;
  const wanted = pitchClass(root) + degreeHalfSteps(of);
  const alteration = mod(wanted - pitchClass({ letter, alteration: 0 }) + 6, 12) - 6;
  return { letter, alteration };
}

const SOLFA: Readonly<Record<string, string>> = {
  '1': 'do',
  '#1': 'di',
  b2: 'ra',
  '2': 're',
  '#2': 'ri',
  b3: 'me',
  '3': 'mi',
  b4: 'fe',
  '4': 'fa',
  '#4': 'fi',
  b5: 'se',
  '5': 'so',
  '#5': 'si',
  b6: 'le',
  '6': 'la',
  '#6': 'li',
  bb7: 'tae',
  b7: 'te',
  '7': 'ti',
};
/**
 * Movable-do syllable of a degree (tonic sol-fa with chromatic syllables; common practice, no source).
 *
 * @example solfa({ number: 3, alteration: 0 }) // "mi"
 */
export const solfa = (of: Degree): string => SOLFA[degreeName(of)] ?? degreeName(of);

import { mod } from './arithmetic.ts';
import { ok, refuse, type Result } from './result.ts';

export type Letter = 'C' | 'D' | 'E' | 'F' | 'G' | 'A' | 'B';
/** 0 = C … 11 = B. */
export type PitchClass = number;

/** A spelled note without an octave. `alteration` is in half steps: −1 is one flat, 2 a double sharp. */
export interface Note {
  readonly letter: Letter;
  readonly alteration: number;
}

export const LETTERS: readonly Letter[] = ['C', 'D', 'E', 'F', 'G', 'A', 'B'];
/** Half steps of each letter above C. */
const NATURAL: Readonly<Record<Letter, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };

/**
 * Half steps above C, 0 to 11.
 *
 * @example pitchClass(note('Eb')) // 3
 */
export const pitchClass = (note: Note): PitchClass => mod(NATURAL[note.letter] + note.alteration, 12);

/**
 * Accidentals in plain letters: 2 → "##", −1 → "b".
 *
 * @example accidental(-1) // "b"
 */
export const accidental = (alteration: number): string =>
  (alteration < 0 ? 'b' : '#').repeat(Math.abs(alteration));

/**
 * Plain name that can be typed again: "F#", "Bb", "F##".
 *
 * @example noteName(note('Bb')) // "Bb"
 */
export const noteName = (note: Note): string => note.letter + accidental(note.alteration);

/**
 * Turns the plain accidentals of a note or degree name into printed ones: "F#" → "F♯", "bb7" → "♭♭7".
 *
 * @example pretty('Bb') // "B♭"
 */
export const pretty = (name: string): string =>
  name.replace(/#/g, '♯').replace(/b+(?=\d)|(?<=\b[A-G])b+(?![a-z])/g, (flats) => '♭'.repeat(flats.length));

/**
 * Counts accidentals in text, plain or printed; "x" is a double sharp.
 *
 * @example alterationOf('bb') // -2
 */
export function alterationOf(signs: string): number {
  let sum = 0;
  for (const sign of signs)
    sum += sign === '#' || sign === '♯' ? 1 : sign === 'x' || sign === '𝄪' ? 2 : sign === '𝄫' ? -2 : -1;
  return sum;
}

const NOTE = /^([A-Ga-g])([#♯x𝄪]*|[b♭𝄫]*)$/u;
const PITCH = /^([A-Ga-g])([#♯x𝄪]*|[b♭𝄫]*)(-?\d{1,2})$/u;

/**
 * Reads "F#", "f♯", "Bb". Refuses anything else with code `note.unknown`.
 *
 * @example parseNote('F#') // {"ok":true,"value":{"letter":"F","alteration":1}}
 */
export function parseNote(text: string): Result<Note> {
  const match = NOTE.exec(text.trim());
  const alteration = alterationOf(match?.[2] ?? '');
  if (!match || Math.abs(alteration) > 3)
    return refuse(
      'note.unknown',
      `“${text}” is not a note: write a letter A to G, then # or b, such as F# or Bb.`,
    );
  return ok({ letter: match[1]!.toUpperCase() as Letter, alteration });
}

/**
 * The note of a name known to be good; throws on a bad one.
 *
 * @example note('C#') // {"letter":"C","alteration":1}
 */
export function note(name: string): Note {
  const parsed = parseNote(name);
  if (!parsed.ok) throw new Error(parsed.error.message);
  return parsed.value;
}

/**
 * MIDI number of a note in an octave; middle C is C4 = 60 (MIDI 1.0, note numbers).
 *
 * @example midiOf(note('A'), 4) // 69
 */
export const midiOf = (n: Note, octave: number): number =>
  NATURAL[n.letter] + n.alteration + 12 * (octave + 1);

/**
 * Reads "E2" as MIDI 40. Refuses text without an octave (code `pitch.unknown`).
 *
 * @example parsePitch('E2') // {"ok":true,"value":40}
 */
export function parsePitch(text: string): Result<number> {
  const match = PITCH.exec(text.trim());
  if (!match)
    return refuse('pitch.unknown', `“${text}” is not a pitch: write a note and its octave, such as E2.`);
  return ok(
    midiOf(
      { letter: match[1]!.toUpperCase() as Letter, alteration: alterationOf(match[2]!) },
      Number(match[3]),
    ),
  );
}

export type Accidentals = 'sharps' | 'flats';
const SHARP_NAMES = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B'];
const FLAT_NAMES = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'];

/**
 * Name of a pitch class outside any key.
 *
 * @example pitchClassName(3, 'flats') // "Eb"
 */
export const pitchClassName = (pc: PitchClass, use: Accidentals = 'sharps'): string =>
  (use === 'sharps' ? SHARP_NAMES : FLAT_NAMES)[mod(pc, 12)]!;

/**
 * Name of a MIDI number with its octave: 40 → "E2".
 *
 * @example midiName(40, 'flats') // "E2"
 */
export const midiName = (midi: number, use: Accidentals = 'sharps'): string =>
  pitchClassName(midi, use) + String(Math.floor(midi / 12) - 1);

/**
 * Frequency in hertz, equal temperament, A4 = MIDI 69 = 440 Hz (ISO 16).
 *
 * @example frequency(69) // 440
 */
export const frequency = (midi: number): number => 440 * 2 ** ((midi - 69) / 12);

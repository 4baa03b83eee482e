import { LETTERS, type Letter, type Note, pitchClass } from '../note.ts';
import { mod } from '../arithmetic.ts';
import { type Key, spellScale } from '../scale.ts';

/** Letters in the order in which a signature makes them sharp; flats come the other way round. */
const SHARPS: readonly Letter[] = ['F', 'C', 'G', 'D', 'A', 'E', 'B'];
/** Sharps, or flats below 0, that a signature can have. */
const MOST = 7;
/** Accidentals that a scale may need beside the signature of its root, major or minor, before another one is written. */
const BESIDE = 2;

/**
 * Place of a note on the line of fifths: C is 0, G 1, F −1, F♯ 6.
 *
 * @example fifthsOf(note('F#')) // 6
 */
export const fifthsOf = ({ letter, alteration }: Note): number => SHARPS.indexOf(letter) - 1 + 7 * alteration;

/**
 * The note at a place on the line of fifths.
 *
 * @example noteName(noteAtFifths(-4)) // "Ab"
 */
export const noteAtFifths = (fifths: number): Note => ({
  letter: SHARPS[mod(fifths + 1, SHARPS.length)]!,
  alteration: Math.floor((fifths + 1) / SHARPS.length),
});

/**
 * How a signature alters a letter, in half steps: one sharp, none, or one flat. `signature` is −7 (flats) to 7 (sharps).
 *
 * @example alteredBy(-1, 'B') // -1
 */
export function alteredBy(signature: number, letter: Letter): number {
  const at = SHARPS.indexOf(letter);
  if (at < signature) return 1;
  return MOST - 1 - at < -signature ? -1 : 0;
}

/**
 * Whether a key is written as minor: by its third.
 *
 * @example isMinor(A) // true
 */
export const isMinor = ({ scale: { offsets } }: Key): boolean => offsets.includes(3) && !offsets.includes(4);

/**
 * The key signature that a key is written under, −7 (flats) to 7 (sharps). A mode has the signature of its notes. Any other scale
 * has that of its root, major or minor by its third, as harmonic and melodic minor are written (common practice), unless more than
 * two of its notes would need accidentals: then the signature that needs the fewest, the nearest to the root's own.
 *
 * @example keySignature(A) // 0
 */
export function keySignature(key: Key): number {
  const notes = spellScale(key);
  const own = fifthsOf(key.root) - (isMinor(key) ? 3 : 0);
  const beside = (signature: number): number =>
    notes.filter((n) => alteredBy(signature, n.letter) !== n.alteration).length;
  const all = Array.from({ length: 2 * MOST + 1 }, (_, i) => i - MOST).sort(
    (a, b) => beside(a) - beside(b) || Math.abs(a - own) - Math.abs(b - own),
  );
  const best = all[0]!;
  return Math.abs(own) <= MOST && beside(best) > 0 && beside(own) <= BESIDE ? own : best;
}

/** A double sharp or double flat is the most that is written. */
const WRITABLE = 2;

/**
 * How a pitch is written in a key: as the scale's own note, else by the name that lies nearest to the key's notes on the line of
 * fifths, so that what is borrowed from a neighbouring key is written as it is there.
 *
 * @example noteName(spelledIn(A, 49)) // "C#"
 */
export function spelledIn(key: Key, midi: number): Note {
  const pc = mod(midi, 12);
  const notes = spellScale(key);
  const middle = notes.reduce((sum, n) => sum + fifthsOf(n), 0) / notes.length;
  const names = LETTERS.flatMap((letter) =>
    [-2, -1, 0, 1, 2].map((alteration): Note => ({ letter, alteration })),
  ).filter((n) => pitchClass(n) === pc);
  const own = notes.find((n) => pitchClass(n) === pc);
  if (own && Math.abs(own.alteration) <= WRITABLE) return own;
  const far = (n: Note): number => Math.abs(fifthsOf(n) - middle);
  return names.sort((a, b) => far(a) - far(b))[0]!;
}

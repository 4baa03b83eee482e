import { mod } from '../arithmetic.ts';
import { type Chord, CHORD_KINDS } from '../chords/chord.ts';
import { type Degree, degreeHalfSteps, spellDegree } from '../degree.ts';
import { type Note, note, type PitchClass } from '../note.ts';
import { ROOTS } from '../root.ts';
import { type Scale } from '../scale.ts';

/** A scale that holds given notes. */
export interface ScaleHolding {
  readonly root: PitchClass;
  readonly scale: Scale;
  /** Its degrees that were not given; empty where the notes are the scale. */
  readonly more: readonly Degree[];
}

/**
 * Scales of a list that hold all the given pitch classes, rooted on each of these in turn: those with the fewest other notes first, then
 * by root from the first one given, then as the list has them.
 *
 * @example scalesHolding([9, 0, 2, 4, 7], [A.scale]).map((h) => h.root) // [9]
 */
export function scalesHolding(
  notes: readonly PitchClass[],
  among: readonly Scale[],
): readonly ScaleHolding[] {
  const given = [...new Set(notes.map((n) => mod(n, 12)))];
  return given
    .flatMap((root) =>
      among.flatMap((scale): ScaleHolding[] => {
        const offsets = given.map((pc) => mod(pc - root, 12));
        if (!offsets.every((o) => scale.offsets.includes(o))) return [];
        return [{ root, scale, more: scale.degrees.filter((_, i) => !offsets.includes(scale.offsets[i]!)) }];
      }),
    )
    .sort((a, b) => a.more.length - b.more.length || given.indexOf(a.root) - given.indexOf(b.root));
}

/** A chord that holds given notes. */
export interface ChordHolding {
  readonly chord: Chord;
  /** Its notes that were not given, by index of its degrees; empty where the notes are the chord. */
  readonly more: readonly Degree[];
}

/**
 * Chords that hold all the given pitch classes, rooted on each of these in turn: those with the fewest other notes first, then by root from the
 * first one given.
 *
 * @example chordsHolding([9, 0, 4, 7]).map((h) => chordSaid(h.chord)).slice(0, 2) // ["Am7","C6"]
 */
export function chordsHolding(notes: readonly PitchClass[]): readonly ChordHolding[] {
  const given = [...new Set(notes.map((n) => mod(n, 12)))];
  return given
    .flatMap((pc) =>
      CHORD_KINDS.flatMap(({ suffix, degrees }): ChordHolding[] => {
        const offsets = given.map((n) => mod(n - pc, 12));
        const sounding = degrees.map(degreeHalfSteps);
        if (!offsets.every((o) => sounding.includes(o))) return [];
        const root = plainRoot(pc, degrees);
        return [
          {
            chord: { root, degrees, suffix },
            more: degrees.filter((_, i) => !offsets.includes(sounding[i]!)),
          },
        ];
      }),
    )
    .sort((a, b) => a.more.length - b.more.length);
}

/** The name of a chord's root that needs the fewest signs for its notes. */
function plainRoot(pc: PitchClass, degrees: readonly Degree[]): Note {
  const signs = (root: Note): number =>
    degrees.reduce((sum, d) => sum + Math.abs(spellDegree(root, d).alteration), 0);
  return ROOTS[pc]!.map(note).reduce((best, root) => (signs(root) < signs(best) ? root : best));
}

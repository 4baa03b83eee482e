import { type Note, noteName, parseNote, pitchClass, type PitchClass, pretty } from './note.ts';
import { plural } from './words.ts';
import { type Scale, spellScale } from './scale.ts';

/** The twelve keys in rising order, each with the names that players use for it. */
export const ROOTS: readonly (readonly string[])[] = [
  ['C'],
  ['C#', 'Db'],
  ['D'],
  ['D#', 'Eb'],
  ['E'],
  ['F'],
  ['F#', 'Gb'],
  ['G'],
  ['G#', 'Ab'],
  ['A'],
  ['A#', 'Bb'],
  ['B', 'Cb'],
];

/** Names that players avoid where the other one is as easy to read (common practice, no source). */
const UNUSUAL: readonly string[] = ['A#', 'D#', 'Gb', 'Cb'];

/** How hard a key is to read: [double accidentals, accidentals]. */
function burden(root: Note, scale: Scale): readonly [doubles: number, all: number] {
  const notes = spellScale({ root, scale });
  return [
    notes.filter((n) => Math.abs(n.alteration) > 1).length,
    notes.reduce((sum, n) => sum + Math.abs(n.alteration), 0),
  ];
}

export interface RootChoice {
  readonly root: Note;
  readonly reason: string;
}

const namesOf = (pc: PitchClass): readonly Note[] =>
  ROOTS[pc]!.map((name) => {
    const parsed = parseNote(name);
    if (!parsed.ok) throw new Error(parsed.error.message);
    return parsed.value;
  });

/**
 * The spelling of a root that is easiest to read for a scale, and why. `prefer` decides a tie.
 *
 * @example noteName(chooseRoot(8, scaleById('major')).root) // "Ab"
 */
export function chooseRoot(pc: PitchClass, scale: Scale, prefer: 'sharps' | 'flats' = 'flats'): RootChoice {
  const ranked = namesOf(pc)
    .map((root) => ({ root, load: burden(root, scale) }))
    .sort(
      (a, b) =>
        a.load[0] - b.load[0] ||
        a.load[1] - b.load[1] ||
        Number(UNUSUAL.includes(noteName(a.root))) - Number(UNUSUAL.includes(noteName(b.root))) ||
        (prefer === 'sharps' ? 1 : -1) * (b.root.alteration - a.root.alteration),
    );
  const [best, other] = ranked;
  const name = (n: Note): string => pretty(noteName(n));
  if (!other) return { root: best!.root, reason: `${name(best!.root)} has one usual name.` };
  const tie = best!.load[0] === other.load[0] && best!.load[1] === other.load[1];
  const says = (e: typeof other): string =>
    e.load[0] ? plural(e.load[0], 'double accidental') : plural(e.load[1], 'accidental');
  return {
    root: best!.root,
    reason: tie
      ? `${name(best!.root)} and ${name(other.root)} need the same number of accidentals; ${name(best!.root)} is ${UNUSUAL.includes(noteName(other.root)) ? 'more usual' : 'your spelling'}.`
      : `${name(best!.root)} ${pretty(scale.name)} needs ${says(best!)}, ${name(other.root)} ${pretty(scale.name)} needs ${says(other)}.`,
  };
}

/**
 * The simpler enharmonic root for a key with more double accidentals than it needs, or null.
 *
 * @example noteName(simplerRoot(note('G#'), scaleById('major')).root) // "Ab"
 */
export function simplerRoot(root: Note, scale: Scale): RootChoice | null {
  const choice = chooseRoot(pitchClass(root), scale);
  return burden(choice.root, scale)[0] < burden(root, scale)[0] ? choice : null;
}

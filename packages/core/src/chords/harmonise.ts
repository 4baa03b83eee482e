import { type Degree, degreeHalfSteps, degreeName } from '../degree.ts';
import { mod } from '../arithmetic.ts';
import { accidental } from '../note.ts';
import { type Key, type Scale, spellScale } from '../scale.ts';
import { relativeKeys } from '../moves/mode.ts';
import { type Chord, CHORD_KINDS, soundingName, stackName, withBeside } from './chord.ts';

/** A chord that a scale has on one of its degrees. */
export interface ScaleChord {
  /** Index of the degree that it stands on. */
  readonly degree: number;
  readonly chord: Chord;
  /** Indexes of the scale's degrees that it is made of, as it is stacked. */
  readonly tones: readonly number[];
  /** The chord that its notes are on another one of them, where they have no name on their own root. */
  readonly over: Chord | null;
  /** The mode that begins here. */
  readonly mode: Key;
}

/** How many notes are stacked, and what players call it. */
export const STACKS = [
  { size: 3, name: 'triads' },
  { size: 4, name: 'sevenths' },
  { size: 5, name: 'ninths' },
  { size: 6, name: 'elevenths' },
  { size: 7, name: 'thirteenths' },
] as const;

/**
 * Whether every other note of a scale is a third: it has each of the seven letters once.
 *
 * @example isByThirds(A.scale) // false
 */
export const isByThirds = ({ degrees }: Pick<Scale, 'degrees'>): boolean =>
  degrees.length === 7 && new Set(degrees.map((d) => d.number)).size === 7;

/**
 * How many different notes every other note of a scale comes to.
 *
 * @example mostStacked(A.scale) // 5
 */
export const mostStacked = ({ degrees: { length } }: Pick<Scale, 'degrees'>): number =>
  length % 2 ? length : length / 2;

/** A degree counted from another one of its scale, as both are spelled. */
function counted(from: Degree, to: Degree): Degree {
  const number = mod(to.number - from.number, 7) + 1;
  const halfSteps = mod(degreeHalfSteps(to) - degreeHalfSteps(from), 12);
  return { number, alteration: mod(halfSteps - degreeHalfSteps({ number, alteration: 0 }) + 6, 12) - 6 };
}

/**
 * The chords of a scale: every other note on each degree, so many of them as there are at most. In a scale of seven letters these are
 * thirds, and a chord is named as it is spelled; elsewhere it is named by its sound, on its own root or on another of its notes.
 *
 * @example harmonise({ root: note('C'), scale: scaleById('major') }, 4).map((c) => c.chord.suffix) // ["maj7","m7","m7","maj7","7","m7","m7b5"]
 */
export function harmonise(key: Key, size: number): readonly ScaleChord[] {
  const { scale } = key;
  const { degrees } = scale;
  const [notes, modes] = [spellScale(key), relativeKeys(key)];
  const byThirds = isByThirds(scale);
  const many = Math.min(size, mostStacked(scale));
  return degrees.map((from, degree): ScaleChord => {
    const tones = Array.from({ length: many }, (_, k) => (degree + 2 * k) % degrees.length);
    const stack = tones.map((tone) => counted(from, degrees[tone]!));
    const sounding = (root: number): string | null =>
      soundingName(tones.map((tone) => mod(scale.offsets[tone]! - scale.offsets[root]!, 12)));
    const suffix = byThirds ? stackName(stack) : sounding(degree);
    const other = suffix === null && !byThirds ? tones.find((tone) => sounding(tone) !== null) : undefined;
    return {
      degree,
      chord: { root: notes[degree]!, degrees: stack, suffix },
      tones,
      over:
        other === undefined
          ? null
          : {
              root: notes[other]!,
              degrees: tones.map((tone) => counted(degrees[other]!, degrees[tone]!)),
              suffix: sounding(other),
            },
      mode: modes[degree]!,
    };
  });
}

const [TRIAD, SEVENTH] = [3, 4];
/** Notes that are played above a seventh; the others, as a fourth over a major third, are left out of it (common practice, no source). */
const ABOVE = ['b2', '2', '#2', '#4', 'b6'];
/**
 * The chord on the root that shows what a mode is heard by: its seventh, with its characteristic note above where that is not in it and is played
 * there ("m7(b9)"), or its triad with the sixth ("m6"). Null for a scale whose thirds have no name.
 *
 * @example showingChord({ root: note('D'), scale: scaleById('dorian') }).suffix // "m6"
 */
export function showingChord(key: Key): Chord | null {
  const { scale, root } = key;
  const { chord, tones } = harmonise(key, SEVENTH)[0]!;
  if (!isByThirds(scale) || chord.suffix === null) return null;
  const beside = scale.degrees.filter(
    (d, i) => scale.characteristic.includes(degreeName(d)) && !tones.includes(i),
  );
  const sixth = beside.find((d) => degreeName(d) === '6');
  if (sixth) {
    const degrees = [...chord.degrees.slice(0, TRIAD), sixth];
    const suffix = soundingName(degrees.map(degreeHalfSteps));
    if (suffix === '6' || suffix === 'm6') return { root, degrees, suffix };
  }
  const special = beside.find((d) => ABOVE.includes(degreeName(d)));
  if (!special) return chord;
  const above = accidental(special.alteration) + String(special.number + 7);
  return {
    root,
    degrees: [...chord.degrees, special],
    suffix: withBeside(chord.suffix, [above]),
  };
}

/** Half steps of the thirds. */
const THIRDS = [3, 4];
/**
 * The chord that is held under a key: the one that shows its mode; for a scale whose thirds have no name, of the chords of at most four notes on
 * its root that it holds, one with a third before others, then a fuller one before a smaller one, then the plainer one (as this project judges it).
 * Null where it holds none.
 *
 * @example chordUnder({ root: note('A'), scale: scaleById('minor-pentatonic') })?.suffix // "m7"
 */
export function chordUnder(key: Key): Chord | null {
  const { scale, root } = key;
  const shows = showingChord(key);
  if (shows) return shows;
  const worth = (sounding: readonly number[]): number =>
    (sounding.some((h) => THIRDS.includes(h)) ? SEVENTH : 0) + sounding.length;
  const held = CHORD_KINDS.flatMap(({ suffix, degrees }) => {
    const sounding = degrees.map((d) => mod(degreeHalfSteps(d), 12));
    const fits = sounding.length <= SEVENTH && sounding.every((h) => scale.offsets.includes(h));
    return fits ? [{ suffix, degrees, worth: worth(sounding) }] : [];
  }).sort((a, b) => b.worth - a.worth);
  const [first] = held;
  return first ? { root, degrees: first.degrees, suffix: first.suffix } : null;
}

import { mod } from '../arithmetic.ts';
import { type PitchClass } from '../note.ts';

/** Where the bass note of a chord sounds, and its other notes, in MIDI numbers: below and around the middle of a guitar. */
export const VOICING = { bass: [40, 51], upper: [52, 68] } as const;
/** As many notes sound above the bass at most. */
const UPPER = 4;

/** A chord that is to be heard. */
export interface Sounding {
  /** Pitch classes, the root's first. */
  readonly classes: readonly PitchClass[];
  /** Pitch class of the bass. */
  readonly bass: PitchClass;
}

/** The notes that sound above the bass: where there are many the root, which the bass has, and the fifth are left out. */
function upperOf({ classes, bass }: Sounding): readonly PitchClass[] {
  const root = classes[0]!;
  const without = (some: readonly PitchClass[], pc: PitchClass): readonly PitchClass[] =>
    some.length > UPPER - 1 ? some.filter((it) => it !== pc) : some;
  const less = bass === root ? without(classes, root) : classes;
  return without(less, mod(root + 7, 12)).slice(0, UPPER);
}

/** All ways to place notes, each once, between two pitches; rising. */
function placings(
  classes: readonly PitchClass[],
  [low, high]: readonly [number, number],
): readonly (readonly number[])[] {
  return classes
    .reduce<readonly (readonly number[])[]>(
      (so, pc) => {
        const places = Array.from({ length: high - low + 1 }, (_, i) => low + i).filter(
          (m) => mod(m, 12) === pc,
        );
        return so.flatMap((chord) => places.map((midi) => [...chord, midi]));
      },
      [[]],
    )
    .map((chord) => [...chord].sort((a, b) => a - b));
}

/**
 * How far the notes above the bass move from one chord to the next, in half steps: note by note from the top, and what one has more not at all.
 *
 * @example voiceMoves([52, 57, 60], [53, 57, 60]) // 1
 */
export const voiceMoves = (from: readonly number[], to: readonly number[]): number => {
  const [a, b] = [[...from].reverse(), [...to].reverse()];
  return a.slice(0, b.length).reduce((sum, midi, i) => sum + Math.abs(midi - b[i]!), 0);
};
/** A chord on its own is placed closely, around this pitch. */
const MIDDLE = 60;
const spread = (upper: readonly number[]): number =>
  (upper.at(-1)! - upper[0]! + Math.abs(upper.reduce((a, b) => a + b, 0) / upper.length - MIDDLE)) / 100;

/**
 * Chords as they sound one after the other: the bass note first, then the others, which move by as few half steps as they can over all chords; those that
 * come to the same lie closely. A shortest path. MIDI numbers.
 *
 * @example voicings([{ classes: [0, 4, 7], bass: 0 }]) // [[48,55,60,64]]
 */
export function voicings(chords: readonly Sounding[]): readonly (readonly number[])[] {
  interface State {
    readonly upper: readonly number[];
    readonly cost: number;
    readonly before: State | null;
  }
  let states: readonly State[] = [];
  for (const chord of chords)
    states = placings(upperOf(chord), VOICING.upper).map((upper) => {
      const best = states.reduce<{ readonly cost: number; readonly before: State | null } | null>(
        (a, before) => {
          const cost = before.cost + voiceMoves(before.upper, upper);
          return a && a.cost <= cost ? a : { cost, before };
        },
        null,
      );
      return { upper, cost: (best?.cost ?? 0) + spread(upper), before: best?.before ?? null };
    });
  const last = states.reduce<State | null>((a, b) => (a && a.cost <= b.cost ? a : b), null);
  const line: (readonly number[])[] = [];
  for (let at = last; at; at = at.before) line.push(at.upper);
  const [low] = VOICING.bass;
  return line.reverse().map((upper, i) => [low + mod(chords[i]!.bass - low, 12), ...upper]);
}

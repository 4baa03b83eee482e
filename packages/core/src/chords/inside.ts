import { mod } from '../arithmetic.ts';
import { type PitchClass } from '../note.ts';
import { type PlacedSpot } from '../placement.ts';
import { type Position } from '../position.ts';
import { ok, refuse, type Result } from '../result.ts';

/** How far a chord goes inside a position. */
export const RANGES = [
  { id: 'octave', name: 'inside one octave' },
  { id: 'all', name: 'over the whole of it' },
] as const;
export type Range = (typeof RANGES)[number]['id'];

const classOf = ({ midi }: Pick<PlacedSpot, 'midi'>): PitchClass => mod(midi, 12);
type Inside = Pick<Position, 'spots'>;
/** Each pitch once, rising. */
const risingOnce = (spots: readonly PlacedSpot[]): readonly PlacedSpot[] =>
  [...new Map(spots.map((s) => [s.midi, s])).values()].sort((a, b) => a.midi - b.midi);

const missing = (what: string) =>
  refuse(
    'chord.room',
    `The position in front does not hold ${what}: choose another position, or a layout with more notes.`,
  );

/**
 * A chord's notes inside a position as an arpeggio upwards, from its bass note: to the bass note's octave, or as far as the position goes.
 * `classes` are the chord's pitch classes, the bass note's first. Where no bass note has its octave above it, the lowest one from which all
 * of the chord lies above is taken. Code `chord.room`.
 *
 * @example arpeggioIn(box, [9, 0, 4], 'octave').value?.map((s) => s.midi) // [45,48,52,57]
 */
export function arpeggioIn(
  { spots }: Inside,
  classes: readonly PitchClass[],
  range: Range,
): Result<readonly PlacedSpot[]> {
  const rising = risingOnce(spots.filter((s) => classes.includes(classOf(s))));
  const from = rising.flatMap((bass, i) => {
    if (classOf(bass) !== classes[0]) return [];
    const above = rising.slice(i);
    const line = range === 'all' ? above : above.filter(({ midi }) => midi <= bass.midi + 12);
    return classes.every((pc) => line.some((s) => classOf(s) === pc)) ? [line] : [];
  });
  const whole = range === 'all' ? undefined : from.find((line) => line.at(-1)!.midi === line[0]!.midi + 12);
  const line = whole ?? from[0];
  return line ? ok(line) : missing('all notes of this chord above its bass note');
}

/**
 * The chord on every degree in turn, from the root up. Inside one octave of the root, notes that would lie above it are taken in it, below
 * ("G B and the D below"); over the whole of a position each note on which a whole chord stands has its chord. `chords` has the pitch classes of
 * each chord, its root first, by degree. Code `chord.room`.
 *
 * @example chordsInTurn(box, [[9, 0, 4]], 'all').value?.map((chord) => chord.length) // [3,3]
 */
export function chordsInTurn(
  { spots }: Inside,
  chords: readonly (readonly PitchClass[])[],
  range: Range,
): Result<readonly (readonly PlacedSpot[])[]> {
  const rising = risingOnce(spots);
  /** The chord on a note: each note above the one before, or else, if it may lie below, the lowest. */
  const on = (
    among: readonly PlacedSpot[],
    root: PlacedSpot,
    classes: readonly PitchClass[],
    below: boolean,
  ) => {
    const line = [root];
    for (const pc of classes.slice(1)) {
      const all = among.filter((s) => classOf(s) === pc);
      const next = all.find((s) => s.midi > line.at(-1)!.midi) ?? (below ? all[0] : undefined);
      if (!next) return null;
      line.push(next);
    }
    return line;
  };
  if (range === 'all') {
    const lines = rising.flatMap((root) => {
      const line = on(rising, root, chords.find(([pc]) => pc === classOf(root)) ?? [], false);
      return line && line.length > 1 ? [line] : [];
    });
    return lines.length ? ok(lines) : missing('a whole chord');
  }
  const first = chords[0]?.[0];
  const root = rising.find((s) => classOf(s) === first && rising.some(({ midi }) => midi === s.midi + 12));
  if (!root) return missing('an octave of the root');
  const octave = rising.filter(({ midi }) => midi >= root.midi && midi <= root.midi + 12);
  const lines = chords.map((classes) => {
    const at = octave.find((s) => classOf(s) === classes[0]);
    return at ? on(octave, at, classes, true) : null;
  });
  return lines.every((line) => line !== null)
    ? ok(lines)
    : missing('every note of the scale inside an octave of the root');
}

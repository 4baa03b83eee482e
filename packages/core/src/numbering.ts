import { degreeName } from './degree.ts';
import { modeOn } from './naming.ts';
import { type Position } from './position.ts';
import { mod, roman } from './result.ts';
import { type Key, type Scale } from './scale.ts';

/** How a school names the positions of a layout. */
export type NumberingSchool = 'minorRoot' | 'majorRoot' | 'degree' | 'mode' | 'neck' | 'roman';

export const NUMBERING_SCHOOLS: readonly { readonly id: NumberingSchool; readonly name: string }[] = [
  { id: 'minorRoot', name: 'numbered from the minor root' },
  { id: 'majorRoot', name: 'numbered from the major root' },
  { id: 'degree', name: 'by the degree of the lowest note' },
  { id: 'mode', name: 'by mode name' },
  { id: 'neck', name: 'in neck order' },
  { id: 'roman', name: 'by the fret under the index finger' },
];

/** The school that players use for a scale unless they say otherwise: mode names for seven notes. */
export const usualSchool = (scale: Scale): NumberingSchool =>
  scale.degrees.length === 7 ? 'mode' : 'minorRoot';

/** The degree index whose mode is natural minor or minor pentatonic (or major), 0 where the scale has no such relative. */
function relativeRoot(scale: Scale, names: readonly string[]): number {
  const found = scale.offsets.findIndex((_, i) => names.includes(modeOn(scale, i)?.id ?? ''));
  return Math.max(0, found);
}

/** Two modes of the major scale go by other names when they stand among modes. */
const AMONG_MODES: Readonly<Record<string, string>> = { major: 'Ionian', 'natural-minor': 'Aeolian' };
function modalName(scale: Scale, degreeIndex: number): string {
  const mode = modeOn(scale, degreeIndex);
  return mode ? (AMONG_MODES[mode.id] ?? mode.name) : `mode ${degreeIndex + 1}`;
}

/** Numbers of the start degrees, counted up from the position that a reference degree starts. */
function numbersFrom(
  positions: readonly Position[],
  scale: Scale,
  reference: number,
): ReadonlyMap<number, number> {
  const n = scale.degrees.length;
  const starts = [...new Set(positions.map((p) => p.start))].sort((a, b) => a - b);
  // Position 1 starts on the reference degree; where none does, the one that holds it lowest down: the nearest start below.
  const first = starts.reduce(
    (best, s) => (mod(reference - s, n) < mod(reference - best, n) ? s : best),
    starts[0] ?? 0,
  );
  return new Map(starts.sort((a, b) => mod(a - first, n) - mod(b - first, n)).map((s, i) => [s, i + 1]));
}

/** Titles of all positions under one school, in their order along the neck. */
export function positionNames(
  positions: readonly Position[],
  key: Key,
  school: NumberingSchool,
): readonly string[] {
  const { scale } = key;
  const numbered = (reference: number): readonly string[] => {
    const numbers = numbersFrom(positions, scale, reference);
    return positions.map((p) => `position ${numbers.get(p.start)}`);
  };
  switch (school) {
    case 'minorRoot':
      return numbered(relativeRoot(scale, ['natural-minor', 'minor-pentatonic']));
    case 'majorRoot':
      return numbered(relativeRoot(scale, ['major', 'major-pentatonic']));
    case 'degree':
      return positions.map((p) => `from the ${degreeName(scale.degrees[p.start]!)}`);
    case 'mode':
      return positions.map((p) => `${modalName(scale, p.start)} position`);
    case 'neck':
      return positions.map((_, i) => `position ${i + 1}`);
    case 'roman':
      return positions.map((p) => `position ${roman(p.indexFret ?? p.lowFret)}`);
  }
}

/** Every school's title for one position. */
export const namesOfPosition = (
  positions: readonly Position[],
  key: Key,
  index: number,
): Readonly<Record<NumberingSchool, string>> =>
  Object.fromEntries(
    NUMBERING_SCHOOLS.map(({ id }) => [id, positionNames(positions, key, id)[index]!]),
  ) as Record<NumberingSchool, string>;

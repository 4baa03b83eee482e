import { degreeName } from './degree.ts';
import { type LayoutSpec } from './layouts/layout.ts';
import { LAYOUTS } from './layouts/registry.ts';
import { modeOn } from './naming.ts';
import { type Position } from './position.ts';
import { mod } from './arithmetic.ts';
import { ordinal, positionAt } from './words.ts';
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

/**
 * The school that players use for a scale unless they say otherwise: mode names for seven notes.
 *
 * @example usualSchool(A.scale) // "minorRoot"
 */
export const usualSchool = (scale: Scale): NumberingSchool =>
  scale.degrees.length === 7 ? 'mode' : 'minorRoot';

/** The degree index whose mode is natural minor or minor pentatonic (or major), 0 where the scale has no such relative. */
function relativeRoot(scale: Scale, names: readonly string[]): number {
  const found = scale.offsets.findIndex((_, i) => names.includes(modeOn(scale, i)?.id ?? ''));
  return Math.max(0, found);
}

/** Two modes of the major scale go by other names when they stand among modes. */
const AMONG_MODES: Readonly<Record<string, string>> = { major: 'Ionian', 'natural-minor': 'Aeolian' };
/** A position by the degree that it begins on. */
const fromDegree = (scale: Scale, degreeIndex: number): string =>
  `position from the ${degreeIndex === 0 ? 'root' : degreeName(scale.degrees[degreeIndex]!)}`;
function modalName(scale: Scale, degreeIndex: number): string {
  const mode = modeOn(scale, degreeIndex);
  return mode ? `${AMONG_MODES[mode.id] ?? mode.name} position` : fromDegree(scale, degreeIndex);
}

/** Numbers of the start degrees, counted up from the position that a reference degree starts. */
function numbersFrom(
  positions: readonly Position[],
  scale: Scale,
  reference: number,
): ReadonlyMap<number, number> {
  const n = scale.degrees.length;
  const starts = [...new Set(positions.map((p) => p.start))];
  // Position 1 starts on the reference degree; where none does, the one that holds it lowest down: the nearest start below.
  const first = starts.reduce(
    (best, s) => (mod(reference - s, n) < mod(reference - best, n) ? s : best),
    starts[0] ?? 0,
  );
  return new Map(starts.sort((a, b) => mod(a - first, n) - mod(b - first, n)).map((s, i) => [s, i + 1]));
}

/** What a school calls each position, before those called alike are told apart. */
function schoolNames(
  positions: readonly Position[],
  { scale }: Key,
  school: NumberingSchool,
): readonly string[] {
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
      return positions.map((p) => fromDegree(scale, p.start));
    case 'mode':
      return positions.map((p) => modalName(scale, p.start));
    case 'neck':
      return positions.map((_, i) => `position ${i + 1}`);
    case 'roman':
      return positions.map((p) => positionAt(p.indexFret ?? p.lowFret));
  }
}

const OCTAVES = [undefined, 'an octave up', 'two octaves up', 'three octaves up'];

/** Tells positions of one name apart: by octaves from the lowest, else by the fret, else by their order. */
function unique(positions: readonly Position[], names: readonly string[]): readonly string[] {
  const lowest = new Map<string, Position>();
  const taken = new Set<string>();
  return positions.map((p, i) => {
    const name = names[i]!;
    const first = lowest.get(name) ?? p;
    lowest.set(name, first);
    const octave = OCTAVES[(p.lowFret - first.lowFret) / 12];
    let said = first === p ? name : `${name}, ${octave ?? `fret ${p.lowFret}`}`;
    for (let nth = 2; taken.has(said); nth++) said = `${name}, fret ${p.lowFret}, the ${ordinal(nth)}`;
    taken.add(said);
    return said;
  });
}

/**
 * Titles of all positions under one school, in their order along the neck; no two are alike.
 *
 * @example positionNames(boxes, A, 'minorRoot', { kind: 'count', counts: [2] })[2] // "position 1"
 */
export function positionNames(
  positions: readonly Position[],
  key: Key,
  school: NumberingSchool,
  spec: LayoutSpec,
): readonly string[] {
  const own = school === 'neck' ? undefined : LAYOUTS.for(spec).title;
  const names = schoolNames(positions, key, school);
  return unique(positions, own ? positions.map((p, i) => own(p, spec) ?? names[i]!) : names);
}

/**
 * Every school's title for one position.
 *
 * @example namesOfPosition(boxes, A, 2, { kind: 'count', counts: [2] }).minorRoot // "position 1"
 */
export const namesOfPosition = (
  positions: readonly Position[],
  key: Key,
  index: number,
  spec: LayoutSpec,
): Readonly<Record<NumberingSchool, string>> =>
  Object.fromEntries(
    NUMBERING_SCHOOLS.map(({ id }) => [id, positionNames(positions, key, id, spec)[index]!]),
  ) as Record<NumberingSchool, string>;

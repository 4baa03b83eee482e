import { pitchAt, type Neck } from '../neck.ts';
import { QUARTER, type Run } from './run.ts';

export type Stroke = 'down' | 'up';
export const STROKES: readonly { readonly id: Stroke; readonly name: string }[] = [
  { id: 'down', name: 'a down stroke' },
  { id: 'up', name: 'an up stroke' },
];
/** How strokes follow each other: always alternating, or as the place in the beat says. */
export const PICKING_SCHOOLS = [
  { id: 'strict', name: 'strictly alternating' },
  { id: 'beat', name: 'by the beat' },
] as const;
export type PickingSchool = (typeof PICKING_SCHOOLS)[number]['id'];

const OTHER: Readonly<Record<Stroke, Stroke>> = { down: 'up', up: 'down' };

/**
 * The stroke of each note; null where it is reached by a slur or a tap. Strict: each stroke alternates with the last one played, from
 * `first`. By the beat: notes at even places of their beat get a down stroke, at odd places an up stroke.
 *
 * @example strokesOf(run, 'strict').slice(0, 3) // ["down","up","down"]
 */
export function strokesOf(
  run: Run,
  school: PickingSchool,
  first: Stroke = 'down',
): readonly (Stroke | null)[] {
  let last: Stroke = OTHER[first];
  return run.map(({ arrive, start, length }) => {
    if (arrive !== 'pick') return null;
    last = school === 'strict' ? OTHER[last] : ((start % QUARTER) / length) % 2 === 0 ? 'down' : 'up';
    return last;
  });
}

/** Crossings between strings by their strokes. */
export interface Crossings {
  /** The lower-pitched string has the down stroke, the higher-pitched one the up stroke. */
  readonly outside: number;
  readonly inside: number;
  /** Both strokes are the same. */
  readonly equal: number;
}

/**
 * Counts the crossings between one stroke and the next.
 *
 * @example crossingsOf(neck, run, strokesOf(run, 'strict')).outside >= 0 // true
 */
export function crossingsOf(neck: Neck, run: Run, strokes: readonly (Stroke | null)[]): Crossings {
  const counts = { outside: 0, inside: 0, equal: 0 };
  let last: number | null = null;
  run.forEach(({ spot }, i) => {
    if (strokes[i] === null) return;
    const before = last;
    last = i;
    if (before === null || run[before]!.spot.string === spot.string) return;
    const [a, b] = [strokes[before]!, strokes[i]!];
    const lowerFirst = pitchAt(neck, run[before]!.spot.string, 0) < pitchAt(neck, spot.string, 0);
    const onLower = lowerFirst ? a : b;
    if (a === b) counts.equal++;
    else if (onLower === 'down') counts.outside++;
    else counts.inside++;
  });
  return counts;
}

/**
 * The stroke to begin with so that fewer crossings are inside; null where both are as good, or where the beat decides.
 *
 * @example betterStart(neck, run, 'strict') // "up"
 */
export function betterStart(neck: Neck, run: Run, school: PickingSchool): Stroke | null {
  if (school === 'beat') return null;
  const inside = (first: Stroke): number => crossingsOf(neck, run, strokesOf(run, school, first)).inside;
  const [down, up] = [inside('down'), inside('up')];
  return down === up ? null : down < up ? 'down' : 'up';
}

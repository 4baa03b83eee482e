import { isOn, QUARTER } from '../run/run.ts';
import { UNITS } from './phrase.ts';

/** Lengths of notes, by what they are called; ticks. */
export const VALUES = [
  { id: 'whole', name: 'whole note', ticks: 4 * QUARTER },
  { id: 'half', name: 'half note', ticks: 2 * QUARTER },
  { id: 'quarter', name: 'quarter', ticks: QUARTER },
  { id: 'eighth', name: 'eighth', ticks: QUARTER / 2 },
  { id: 'sixteenth', name: 'sixteenth', ticks: QUARTER / 4 },
  { id: 'thirtySecond', name: '32nd', ticks: QUARTER / 8 },
] as const;
export type ValueId = (typeof VALUES)[number]['id'];

/** What a value is multiplied by: dotted, or one of three in the time of two, of five or seven in the time of four. */
const PARTS = { plain: 1, dotted: 3 / 2, triplet: 2 / 3, quintuplet: 4 / 5, septuplet: 4 / 7 } as const;
type As = keyof typeof PARTS;
const AS = Object.keys(PARTS) as readonly As[];

/** A length as players say it: a value, dotted, or one of a triplet and its like. */
export interface Length {
  readonly value: ValueId;
  readonly as: As;
}

const of = (value: ValueId): (typeof VALUES)[number] => VALUES.find(({ id }) => id === value)!;

/**
 * A length in ticks.
 *
 * @example ticksIn({ value: 'eighth', as: 'triplet' }) // 320
 */
export const ticksIn = ({ value, as }: Length): number => Math.round(of(value).ticks * PARTS[as]);
/**
 * Ticks as a length; null where it takes several notes, tied.
 *
 * @example lengthOf(720) // {"value":"eighth","as":"dotted"}
 */
export function lengthOf(ticks: number): Length | null {
  for (const { id } of VALUES)
    for (const as of AS) if (ticksIn({ value: id, as }) === ticks) return { value: id, as };
  return null;
}

/** Whether ticks can be counted in parts of a beat that can be written. */
const isWritable = (ticks: number): boolean => UNITS.some((unit) => isOn(ticks, unit));
/**
 * The next longer or shorter length of the same sort, ticks that are tied doubled or halved; null where there is none that can be written.
 *
 * @example nextLength(480, 1) // 960
 */
export function nextLength(ticks: number, by: 1 | -1): number | null {
  const now = lengthOf(ticks);
  if (!now) {
    const tied = by > 0 ? ticks * 2 : ticks / 2;
    return isWritable(tied) ? tied : null;
  }
  const value = VALUES[VALUES.findIndex(({ id }) => id === now.value) - by]?.id;
  const to = value && ticksIn({ ...now, value });
  return to !== undefined && isWritable(to) ? to : null;
}
/**
 * A length dotted, or one of a triplet, or neither any more; null where that cannot be written.
 *
 * @example lengthAs(480, 'triplet') // 320
 */
export function lengthAs(ticks: number, as: 'dotted' | 'triplet'): number | null {
  const now = lengthOf(ticks);
  const to = now && ticksIn({ ...now, as: now.as === as ? 'plain' : as });
  return to !== null && isWritable(to) ? to : null;
}

/**
 * A length in words: "dotted eighth", "quarter tied to an eighth".
 *
 * @example lengthSaid(1440) // "dotted quarter"
 */
export function lengthSaid(ticks: number): string {
  const one = lengthOf(ticks);
  if (one) {
    const { name } = of(one.value);
    return one.as === 'plain' ? name : one.as === 'dotted' ? `dotted ${name}` : `${name} of a ${one.as}`;
  }
  const most = VALUES.find((v) => v.ticks < ticks);
  return most && ticks - most.ticks >= QUARTER / 8
    ? `${most.name} tied to a ${lengthSaid(ticks - most.ticks)}`
    : `${ticks} ticks`;
}

import { type Place } from '../place.ts';
import { type Group, groupsOf } from './groups.ts';
import { type FingeringSchool, LAST } from './grips.ts';
import { type Fingered } from './run.ts';

/** Groups of a route that have the same steps, and so are remembered as one. */
export interface Kind {
  readonly groups: readonly Group[];
  /** Frets of the notes of each, counted from its lowest one. */
  readonly frets: readonly number[];
}

/**
 * Whether a fingering takes all groups of a kind with the same fingers.
 *
 * @example isAlike({ steps }, { groups: [], frets: [] }) // true
 */
export const isAlike = (
  { steps }: { readonly steps: readonly Fingered[] },
  { groups, frets }: Kind,
): boolean =>
  groups.every(({ from }) =>
    frets.every((_, k) => steps[from + k]!.finger === steps[groups[0]!.from + k]!.finger),
  );

/** Two notes lie under the hand as they come; more of them are a grip that is remembered. */
const GRIP = 3;
/**
 * The kinds of which a route has more than one group; an open string is fingered by nobody.
 *
 * @example kindsOf(box.spots).length // 0
 */
export function kindsOf(route: readonly Place[]): readonly Kind[] {
  const kinds = new Map<string, { groups: Group[]; frets: number[] }>();
  for (const group of groupsOf(route)) {
    const all = route.slice(group.from, group.to).map(({ fret }) => fret);
    const low = Math.min(...all);
    if (all.length < GRIP || low === 0) continue;
    const frets = all.map((fret) => fret - low);
    const word = frets.join();
    const kind = kinds.get(word) ?? { groups: [], frets };
    kind.groups.push(group);
    kinds.set(word, kind);
  }
  return [...kinds.values()].filter(({ groups }) => groups.length > 1);
}

/** The fingers of one place of the hand for frets counted from the lowest of them: one finger a fret, at most one of them stretched. */
export function stillGrips(
  frets: readonly number[],
  school: FingeringSchool,
): readonly (readonly number[])[] {
  const last = LAST[school];
  const bends = school !== 'slides';
  const grips = new Map<string, readonly number[]>();
  for (let hand = -last; hand <= 1; hand++) {
    let stretched = 0;
    const fingers = frets.map((fret) => {
      const finger = fret - hand + 1;
      if (finger >= 1 && finger <= last) return finger;
      stretched++;
      return bends && finger === 0 ? 1 : bends && finger === last + 1 ? last : 0;
    });
    const isOne = new Set(frets).size === new Set(fingers).size && fingers.every((f) => f > 0);
    if (isOne && stretched <= 1) grips.set(fingers.join(), fingers);
  }
  return [...grips.values()];
}

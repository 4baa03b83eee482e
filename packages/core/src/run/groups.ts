import { type Place } from '../place.ts';

/** Notes of a route that are taken as one: those on a string, or, along one string, a stretch of them. */
export interface Group {
  /** First note, and the one after the last. */
  readonly from: number;
  readonly to: number;
  /** Index of an earlier group with the same steps, −1 where there is none near. */
  readonly twin: number;
}

/** More notes than this on a string are taken in more than one group. */
const ONE_GROUP = 4;
/** Frets that a group along one string covers at most, where its steps have no period. */
const REACH = 4;
/** How many groups back a twin may lie: groups of two and three in turn repeat every second group. */
const TWIN_BACK = 2;
/** Larger groups are not remembered note by note. */
export const TWIN_NOTES = 5;

/** The shortest period of steps that holds throughout and comes at least twice, or null. */
function periodOf(steps: readonly number[]): number | null {
  for (let p = 2; p * 2 <= steps.length + 1; p++)
    if (p <= TWIN_NOTES && steps.every((s, i) => i + p >= steps.length || s === steps[i + p])) return p;
  return null;
}

/** The first notes of the groups among `notes` of one string that all go one way. */
function cuts(route: readonly Place[], from: number, to: number): readonly number[] {
  if (to - from <= ONE_GROUP) return [from];
  const steps: number[] = [];
  for (let i = from + 1; i < to; i++) steps.push(route[i]!.fret - route[i - 1]!.fret);
  const period = periodOf(steps);
  const out = [from];
  for (let i = from + 1; i < to; i++)
    if (period ? (i - from) % period === 0 : Math.abs(route[i]!.fret - route[out.at(-1)!]!.fret) > REACH)
      out.push(i);
  return out;
}

/**
 * The note of a group to which players slide, −1 where it has none: the third going up, the last coming down.
 *
 * @example slidNote(box.spots, { from: 0, to: 2, twin: -1 }) // -1
 */
export function slidNote(route: readonly Place[], { from, to }: Group): number {
  if (to - from < 3) return -1;
  return route[from + 1]!.fret > route[from]!.fret ? from + 2 : to - 1;
}

/**
 * The groups of a route: cut where the string changes or the line turns back, and along a string by the period of its steps.
 *
 * @example groupsOf(box.spots).length // 6
 */
export function groupsOf(route: readonly Place[]): readonly Group[] {
  const starts: number[] = [];
  let from = 0;
  for (let i = 1; i <= route.length; i++) {
    const [a, b, c] = [route[i - 2], route[i - 1]!, route[i]];
    const turns = c && i - 2 >= from && (c.fret - b.fret) * (b.fret - a!.fret) < 0;
    if (c && c.string === b.string && !turns) continue;
    starts.push(...cuts(route, from, i));
    from = i;
  }
  const groups: Group[] = [];
  starts.forEach((start, g) => {
    const to = starts[g + 1] ?? route.length;
    /** The first steps of a group, and its string where the last group of a string may be shorter than its twin. */
    const alike = (other: Group): boolean => {
      const along = route[other.from]!.string === route[start]!.string;
      const [here, there] = [to - start, other.to - other.from];
      if (here > there || (here < there && !along)) return false;
      for (let k = 1; k < here; k++)
        if (
          route[start + k]!.fret - route[start + k - 1]!.fret !==
          route[other.from + k]!.fret - route[other.from + k - 1]!.fret
        )
          return false;
      return there <= TWIN_NOTES;
    };
    let twin = -1;
    for (let back = g - 1; to - start > 1 && twin < 0 && back >= Math.max(0, g - TWIN_BACK); back--)
      if (alike(groups[back]!)) twin = back;
    groups.push({ from: start, to, twin });
  });
  return groups;
}

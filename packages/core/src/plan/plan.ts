import { spanOn } from '../neck.ts';
import { isAlike, kindsOf } from '../run/alike.ts';
import { placeId, type Spot } from '../place.ts';
import { ALIKE_SHIFTS, type Fingering, fingers } from '../run/fingers.ts';
import { type HandPlace, widestHand } from '../run/hands.ts';
import { type Fingered } from '../run/run.ts';
import { costOfWay, movesOn, searched, waysOf } from './search.ts';
import {
  type Choice,
  choicesOf,
  type LimitName,
  type Limits,
  type PlanTask,
  stepOf,
  type Way,
  wayBetween,
} from './task.ts';

/** A move of the hand in a planned climb. */
export interface PlannedMove {
  /** Which note it goes to, from 0. */
  readonly to: number;
  readonly way: Way;
  readonly finger: number;
  /** Frets, negative towards the nut. */
  readonly frets: number;
  readonly mm: number;
}

/** A climb that was planned. */
export interface Planned {
  readonly steps: readonly Fingered[];
  /** What its places and moves cost at their easiest. */
  readonly cost: number;
  readonly moves: readonly PlannedMove[];
  /** The place of the hand that is widest in mm; null where nothing is pressed. */
  readonly widest: HandPlace | null;
}

function planned(task: PlanTask, way: readonly Choice[], cost: number): Planned {
  const moves = way.flatMap((c, to): PlannedMove[] => {
    const before = way[to - 1];
    const by = before && wayBetween(before, c);
    if (!by) return [];
    const [from, hand] = [before.grip.hand, c.grip.hand];
    return [{ to, way: by, finger: c.grip.finger, frets: hand - from, mm: spanOn(task.neck, from, hand) }];
  });
  const steps = way.map(stepOf);
  return { steps, cost, moves, widest: widestHand(task.neck, steps) };
}

/** Kinds of groups of which not all are gripped alike. */
const unlikeIn = (steps: readonly Fingered[]): number =>
  kindsOf(steps.map(({ spot }) => spot)).filter((kind) => !isAlike({ steps }, kind)).length;

/**
 * The same places with groups that are alike gripped alike, as a fingering without limits would have them, where the limits allow that
 * and it costs at most one shift more.
 */
function alikeWay(
  task: PlanTask,
  way: readonly Choice[],
  fingered: (places: readonly Spot[]) => Fingering,
): readonly Choice[] {
  const unlike = unlikeIn(way.map(stepOf));
  if (unlike === 0) return way;
  const { steps } = fingered(way.map(({ spot }) => spot));
  if (unlikeIn(steps) >= unlike) return way;
  const placed = task.notes.map((note, i) => ({ ...note, places: [way[i]!.spot] }));
  const choices = choicesOf({ ...task, notes: placed }).map((all, i) =>
    all.filter(({ grip }) => grip.finger === steps[i]!.finger && grip.hand === steps[i]!.hand),
  );
  const shifts = Math.min(task.limits.shifts ?? Infinity, movesOn(way) + ALIKE_SHIFTS);
  const [alike] = searched(task, choices, 1);
  return alike && movesOn(alike) <= shifts ? alike : way;
}

/**
 * The `k` easiest ways to play the notes in order, the easiest first; each takes some note on another string, or moves the
 * hand for another note, than every one before. Fewer where there are no more; none where the limits forbid it. Groups that are alike
 * are gripped alike where that costs at most one shift more. `onNote` is told how many notes are done.
 *
 * @example plan({ neck, hand, notes: notesBetween({ neck, key: A }, { midi: 45, place: null }, { midi: 57, place: null }, false), limits: {}, speed: 4 }, 3).length // 3
 */
export function plan(task: PlanTask, k: number, onNote?: (done: number) => void): readonly Planned[] {
  const found = new Map<string, Planned>();
  const known = new Map<string, Fingering>();
  const fingered = (places: readonly Spot[]): Fingering => {
    const word = places.map(placeId).join();
    const one = known.get(word) ?? fingers(task.neck, places, task.hand);
    known.set(word, one);
    return one;
  };
  const word = (way: readonly Choice[]): string =>
    way.map(({ spot, grip }) => [spot.string, grip.finger, grip.hand].join()).join(' ');
  for (const way of waysOf(task, k, onNote)) {
    const alike = alikeWay(task, way, fingered);
    // Ways that differ in their moves alone can become one: the second of them stays as it is.
    const taken = found.has(word(alike)) ? way : alike;
    if (!found.has(word(taken))) found.set(word(taken), planned(task, taken, costOfWay(task, way)));
  }
  return [...found.values()];
}

/**
 * A smallest set of limits that together forbid every way, empty where there is none even without limits; null where there is one.
 *
 * @example forbidding({ neck, hand, notes: [{ midi: 40, degree: 4, places: [{ string: 6, fret: 0 }] }], limits: { closed: true }, speed: 4 }) // ["closed"]
 */
export function forbidding(task: PlanTask): readonly LimitName[] | null {
  const names = (Object.keys(task.limits) as LimitName[]).filter((n) => task.limits[n] !== undefined);
  const only = (keep: readonly LimitName[]): Limits =>
    Object.fromEntries(keep.map((n) => [n, task.limits[n]]));
  const possible = (keep: readonly LimitName[]): boolean => {
    const under = { ...task, limits: only(keep) };
    return waysOf(under, 1).length > 0;
  };
  const sets = Array.from({ length: 1 << names.length }, (_, m) => names.filter((_, i) => m & (1 << i)));
  return sets.sort((a, b) => a.length - b.length).find((set) => !possible(set)) ?? null;
}

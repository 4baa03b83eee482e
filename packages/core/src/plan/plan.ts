import { spanOn } from '../neck.ts';
import { type Place } from '../place.ts';
import { bentBy, stretchMm, TOO_FAR } from '../run/grips.ts';
import { type Fingered } from '../run/run.ts';
import {
  choicesOf,
  type Choice,
  costBetween,
  costOf,
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
  readonly cost: number;
  readonly moves: readonly PlannedMove[];
  /** The widest stretch, null where there is none. */
  readonly widest: { readonly mm: number; readonly at: Place } | null;
}

/** What makes a plan another one: the string of each note, and the notes that the hand moves for. */
interface Barred {
  readonly strings: readonly number[];
  readonly moved: readonly boolean[];
}

/** No finger stretched, the index back, or the last one forward. */
const BENDS = 3;
/** More notes than this on a string need not be told apart, unless a limit does. */
const RUNS = 3;

/** How often the hand moves on a way. */
const movesOn = (way: readonly Choice[]): number =>
  way.filter((c, i) => i > 0 && wayBetween(way[i - 1]!, c) !== null).length;

/**
 * The cheapest way that differs from all barred ones; null where the limits allow none. Shifts are counted only where the way that is
 * the easiest without counting has more of them than are allowed.
 */
function cheapest(
  task: PlanTask,
  choices: readonly (readonly Choice[])[],
  barred: readonly Barred[],
): readonly Choice[] | null {
  const { shifts, ...limits } = task.limits;
  const way = searched({ ...task, limits }, choices, barred);
  return way === null || shifts === undefined || movesOn(way) <= shifts
    ? way
    : searched(task, choices, barred);
}

/** The cheapest way by dynamic programming. */
function searched(
  task: PlanTask,
  choices: readonly (readonly Choice[])[],
  barred: readonly Barred[],
): readonly Choice[] | null {
  const { limits } = task;
  const { least = 1, most = Infinity, ways, shifts } = limits;
  // A state: the choice, how many notes lie on its string by now, how often the hand moved, which barred plans it differs from, and
  // which finger was stretched since the hand moved last.
  const runs = Math.max(RUNS, least, most === Infinity ? 0 : most);
  const counts = shifts === undefined ? 1 : shifts + 1;
  const masks = 1 << barred.length;
  const size = (n: number): number => n * per;
  const per = runs * counts * masks * BENDS;
  const at = (c: number, run: number, count: number, mask: number, bent: number): number =>
    (((c * runs + run - 1) * counts + count) * masks + mask) * BENDS + bent;
  const bits = (i: number, choice: Choice, moved: boolean): number =>
    barred.reduce(
      (so, b, j) => (b.strings[i] !== choice.spot.string || b.moved[i] !== moved ? so | (1 << j) : so),
      0,
    );
  if (choices.some((c) => !c.length)) return null;
  let costs = new Float64Array(size(choices[0]!.length)).fill(Infinity);
  choices[0]!.forEach((c, k) => (costs[at(k, 1, 0, bits(0, c, false), bentBy(c.grip))] = costOf(task, c)));
  const back: Int32Array[] = [];
  for (let i = 1; i < choices.length; i++) {
    const [before, here] = [choices[i - 1]!, choices[i]!];
    const reached = before.map((_, a) => costs.subarray(a * per, (a + 1) * per).some((c) => c < Infinity));
    const next = new Float64Array(size(here.length)).fill(Infinity);
    const from = new Int32Array(next.length).fill(-1);
    for (let b = 0; b < here.length; b++) {
      const own = costOf(task, here[b]!);
      for (let a = 0; a < before.length; a++) {
        if (!reached[a]) continue;
        const way = wayBetween(before[a]!, here[b]!);
        if (way && ways && !ways.includes(way)) continue;
        const same = before[a]!.spot.string === here[b]!.spot.string;
        const plain = own + costBetween(task, before[a]!, here[b]!, false);
        const third = same ? own + costBetween(task, before[a]!, here[b]!, true) : plain;
        const differs = bits(i, here[b]!, way !== null);
        const moves = way && shifts !== undefined ? 1 : 0;
        const bend = bentBy(here[b]!.grip);
        const stays = before[a]!.grip.hand === here[b]!.grip.hand;
        for (let run = 1; run <= runs; run++) {
          // The first stay on a string may be shorter, as the line begins in it, and so may the last.
          if (same ? run + 1 > most : run < least && run !== i) continue;
          const now = same ? Math.min(runs, run + 1) : 1;
          const step = same && run === 2 ? third : plain;
          for (let count = 0; count + moves < counts; count++)
            for (let mask = 0; mask < masks; mask++)
              for (let bent = 0; bent < BENDS; bent++) {
                const s = at(a, run, count, mask, bent);
                const cost = costs[s]! + step;
                if (cost === Infinity) continue;
                const bends = stays ? bent | bend : bend;
                if (bends === TOO_FAR) continue;
                const to = at(b, now, count + moves, mask | differs, bends);
                if (cost < next[to]!) {
                  next[to] = cost;
                  from[to] = s;
                }
              }
        }
      }
    }
    costs = next;
    back.push(from);
  }
  let end = -1;
  const last = choices.at(-1)!;
  for (let c = 0; c < last.length; c++)
    for (let run = 1; run <= runs; run++)
      for (let count = 0; count < counts; count++)
        for (let bent = 0; bent < BENDS; bent++) {
          const s = at(c, run, count, masks - 1, bent);
          if (costs[s]! < Infinity && (end < 0 || costs[s]! < costs[end]!)) end = s;
        }
  if (end < 0) return null;
  const out: Choice[] = [];
  for (let i = choices.length - 1, s = end; i >= 0; s = back[--i]?.[s] ?? -1)
    out.unshift(choices[i]![Math.floor(s / per)]!);
  return out;
}

/** Cost of a whole way, note by note. */
export function costOfWay(task: PlanTask, way: readonly Choice[]): number {
  let run = 1;
  return way.reduce((sum, c, i) => {
    const before = way[i - 1];
    if (!before) return costOf(task, c);
    run = before.spot.string === c.spot.string ? run + 1 : 1;
    return sum + costOf(task, c) + costBetween(task, before, c, run === 3);
  }, 0);
}

function planned(task: PlanTask, way: readonly Choice[]): Planned {
  const moves = way.flatMap((c, to): PlannedMove[] => {
    const before = way[to - 1];
    const by = before && wayBetween(before, c);
    if (!by) return [];
    const [from, hand] = [before.grip.hand, c.grip.hand];
    return [{ to, way: by, finger: c.grip.finger, frets: hand - from, mm: spanOn(task.neck, from, hand) }];
  });
  const stretches = way
    .map((c) => ({ mm: stretchMm(task.neck, task.hand.school, stepOf(c)), at: c.spot }))
    .sort((a, b) => b.mm - a.mm);
  return {
    steps: way.map(stepOf),
    cost: costOfWay(task, way),
    moves,
    widest: stretches[0] && stretches[0].mm > 0 ? stretches[0] : null,
  };
}

/**
 * The `k` easiest ways to play the notes in order, the easiest first; each takes some note on another string, or moves the
 * hand for another note, than every one before. Fewer where there are no more; none where the limits forbid it.
 * `onFound` is told of each.
 */
export function plan(task: PlanTask, k: number, onFound?: (found: number) => void): readonly Planned[] {
  const choices = choicesOf(task);
  const found: (readonly Choice[])[] = [];
  while (found.length < k && task.notes.length > 0) {
    const barred = found.map((way): Barred => ({
      strings: way.map((c) => c.spot.string),
      moved: way.map((c, i) => i > 0 && wayBetween(way[i - 1]!, c) !== null),
    }));
    const next = cheapest(task, choices, barred);
    if (!next) break;
    found.push(next);
    onFound?.(found.length);
  }
  return found.map((way) => planned(task, way));
}

/** A smallest set of limits that together forbid every way, empty where there is none even without limits; null where there is one. */
export function forbidding(task: PlanTask): readonly LimitName[] | null {
  const names = (Object.keys(task.limits) as LimitName[]).filter((n) => task.limits[n] !== undefined);
  const only = (keep: readonly LimitName[]): Limits =>
    Object.fromEntries(keep.map((n) => [n, task.limits[n]]));
  const possible = (keep: readonly LimitName[]): boolean => {
    const under = { ...task, limits: only(keep) };
    return cheapest(under, choicesOf(under), []) !== null;
  };
  const sets = Array.from({ length: 1 << names.length }, (_, m) => names.filter((_, i) => m & (1 << i)));
  return sets.sort((a, b) => a.length - b.length).find((set) => !possible(set)) ?? null;
}

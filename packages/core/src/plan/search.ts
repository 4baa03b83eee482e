import { spanOn } from '../neck.ts';
import { COST } from '../run/costs.ts';
import { bentBy, LAST, TOO_FAR } from '../run/grips.ts';
import { type Choice, choicesOf, costBetween, costOf, openLate, type PlanTask, wayBetween } from './task.ts';

/** The best way found to come to a choice, among those that are told apart. */
interface Label {
  readonly cost: number;
  /** What makes a way another one: the string of each note so far, and the notes that the hand moved for, as a number. */
  readonly sign: number;
  readonly choice: number;
  readonly from: Label | null;
}

/** What a place of the hand has taken since the hand moved last, as a number; −1 where that is more than it may. */
interface Taken {
  readonly many: number;
  readonly first: (choice: Choice) => number;
  readonly and: (before: number, choice: Choice) => number;
}

/** Without limits of reach it is enough to know which fingers were stretched: one way at most. */
const BENT: Taken = {
  many: TOO_FAR,
  first: ({ grip }) => bentBy(grip),
  and: (before, { grip }) => {
    const both = before | bentBy(grip);
    return both === TOO_FAR ? -1 : both;
  },
};

/** Frets that a stretched hand takes at most, and how far below the hand's own fret they begin at most. */
const MOST_FRETS = 4;
const BELOW = 1;
/** Frets from the hand's own that a finger can be on: stretched back to stretched forward. */
const WIDE = MOST_FRETS + BELOW + 1;

/** With them, the lowest and the highest fret. */
function between({ neck, hand, limits }: PlanTask): Taken {
  const { reach = MOST_FRETS, reachMm = Infinity } = limits;
  const most = Math.min(reach, LAST[hand.school]);
  const none = WIDE * WIDE;
  const one = ({ spot, grip }: Choice): number => {
    const at = spot.fret - grip.hand + BELOW;
    return grip.finger === 0 ? none : at * WIDE + at;
  };
  return {
    many: none + 1,
    first: one,
    and: (before, choice) => {
      const now = one(choice);
      if (now === none) return before;
      if (before === none) return now;
      const at = now % WIDE;
      const low = Math.min(at, Math.floor(before / WIDE));
      const high = Math.max(at, before % WIDE);
      const from = choice.grip.hand - BELOW;
      const fits = high - low <= most && spanOn(neck, from + low, from + high) <= reachMm;
      return fits ? low * WIDE + high : -1;
    },
  };
}

/** More notes than this on a string need not be told apart, unless a limit does. */
const RUNS = 3;
/** Strings have numbers below this. */
const STRINGS = 32;

/** Keeps the `most` cheapest of different signs in `kept`, which is in order. */
function keep(kept: Label[], label: Label, most: number): void {
  const same = kept.findIndex((l) => l.sign === label.sign);
  if (same >= 0) {
    if (kept[same]!.cost <= label.cost) return;
    kept.splice(same, 1);
  }
  let at = kept.length;
  while (at > 0 && kept[at - 1]!.cost > label.cost) at--;
  kept.splice(at, 0, label);
  if (kept.length > most) kept.pop();
}

/** How often the hand moves at least after each choice of each note, whatever else is asked. */
function movesStill(
  { limits: { ways } }: PlanTask,
  choices: readonly (readonly Choice[])[],
): readonly (readonly number[])[] {
  let after: readonly number[] = choices.at(-1)!.map(() => 0);
  const out = [after];
  for (let i = choices.length - 1; i > 0; i--) {
    const [before, here] = [choices[i - 1]!, choices[i]!];
    const least = after;
    after = before.map((a) =>
      here.reduce((so, c, nth) => {
        const way = wayBetween(a, c);
        return way && ways && !ways.includes(way) ? so : Math.min(so, least[nth]! + (way ? 1 : 0));
      }, Infinity),
    );
    out.unshift(after);
  }
  return out;
}

/** What ways are told apart by: the string of each note and where the hand moves, or the string of the first note alone. */
export type Apart = 'strings' | 'start';
interface SearchOptions {
  readonly shifts?: number;
  readonly onNote?: (done: number) => void;
  readonly apart?: Apart;
}

/**
 * The `k` cheapest ways to take the notes, the cheapest first; each takes some note on another string, or moves the hand for another
 * note, than every one before. By dynamic programming: to each choice, with what counts of the way behind it, the `k` cheapest ways
 * that are told apart are kept, which is enough, as what follows costs the same after each of them; so time grows with `k`. The hand's
 * moves are counted only where `shifts` is given; `onNote` is told how many notes are done.
 */
export function searched(
  task: PlanTask,
  choices: readonly (readonly Choice[])[],
  k: number,
  { shifts, onNote, apart = 'strings' }: SearchOptions = {},
): readonly (readonly Choice[])[] {
  if (!choices.length || choices.some((c) => !c.length)) return [];
  const { least = 1, most = Infinity, ways, reach, reachMm } = task.limits;
  const taken = reach === undefined && reachMm === undefined ? BENT : between(task);
  const runs = Math.max(RUNS, least, most === Infinity ? 0 : most);
  const counts = shifts === undefined ? 1 : shifts + 1;
  // A slot: how many notes lie on the string by now, how often the hand moved, what it has taken, whether it has moved at all, and
  // whether the finger slid here.
  const slotOf = (run: number, count: number, held: number, moved: number, slid: number): number =>
    (((run * counts + count) * taken.many + held) * 2 + moved) * 2 + slid;
  type Slots = Map<number, Label[]>;
  let signs = new Map<number, number>();
  const signOf = (before: number, string: number, moved: boolean, isFirst = false): number => {
    if (k === 1) return 0;
    if (apart === 'start') return isFirst ? string : before;
    const word = (before * STRINGS + string) * 2 + Number(moved);
    const known = signs.get(word);
    if (known !== undefined) return known;
    signs.set(word, signs.size);
    return signs.size - 1;
  };
  let reached: readonly Slots[] = choices[0]!.map((c, choice): Slots => {
    const label = { cost: costOf(task, c), sign: signOf(0, c.spot.string, false, true), choice, from: null };
    return new Map([[slotOf(1, 0, taken.first(c), 0, 0), [label]]]);
  });
  const still = shifts === undefined ? null : movesStill(task, choices);
  for (let i = 1; i < choices.length; i++) {
    onNote?.(i);
    const [before, here] = [choices[i - 1]!, choices[i]!];
    signs = new Map();
    reached = here.map((c, choice): Slots => {
      const slots: Slots = new Map();
      const own = costOf(task, c);
      const late = openLate(c);
      before.forEach((a, nth) => {
        const from = reached[nth]!;
        const way = from.size ? wayBetween(a, c) : null;
        if (!from.size || (way && ways && !ways.includes(way))) return;
        const same = a.spot.string === c.spot.string;
        const plain = own + costBetween(task, a, c, false);
        const slid = Number(way === 'slide');
        // Where on a string the third note lies matters to a slide alone.
        const third = slid ? own + costBetween(task, a, c, true) : plain;
        const again = slid ? COST.slideAgain : 0;
        const moves = way && shifts !== undefined ? 1 : 0;
        const stays = a.grip.hand === c.grip.hand;
        for (const [slot, labels] of from) {
          const moved = way || slot & 2 ? 1 : 0;
          const held = (slot >> 2) % taken.many;
          const rest = Math.floor((slot >> 2) / taken.many);
          const count = (rest % counts) + moves;
          const run = Math.floor(rest / counts);
          // The first stay on a string may be shorter, as the line begins in it, and so may the last.
          if (same ? run + 1 > most : run < least && run !== i) continue;
          if (count + (still?.[i]![choice] ?? 0) >= counts) continue;
          const now = stays ? taken.and(held, c) : taken.first(c);
          if (now < 0) continue;
          const to = slotOf(same ? Math.min(runs, run + 1) : 1, count, now, moved, slid);
          const step = (same && run === 2 ? third : plain) + (slot & 1 ? again : 0) + (moved ? late : 0);
          let kept = slots.get(to);
          if (!kept) slots.set(to, (kept = []));
          for (const label of labels) {
            const cost = label.cost + step;
            if (kept.length === k && kept[k - 1]!.cost <= cost) break;
            const sign = signOf(label.sign, c.spot.string, way !== null);
            keep(kept, { cost, sign, choice, from: label }, k);
          }
        }
      });
      return slots;
    });
  }
  const best: Label[] = [];
  for (const slots of reached) for (const labels of slots.values()) for (const l of labels) keep(best, l, k);
  return best.map((end) => {
    const way: Choice[] = [];
    for (let l: Label | null = end, i = choices.length - 1; l; l = l.from, i--)
      way.unshift(choices[i]![l.choice]!);
    return way;
  });
}

/** How often the hand moves on a way. */
export const movesOn = (way: readonly Choice[]): number =>
  way.filter((c, i) => i > 0 && wayBetween(way[i - 1]!, c) !== null).length;

/**
 * The `k` cheapest ways within all limits, as `searched` tells them apart. Moves of the hand are counted only where one of the ways
 * that are the easiest without counting has more of them than are allowed, and never beyond what the easiest has.
 *
 * @example waysOf({ neck, hand, notes: [{ midi: 45, degree: 0, places: [{ string: 6, fret: 5 }] }], limits: {}, speed: 4 }, 3).length // 1
 */
export function waysOf(
  task: PlanTask,
  k: number,
  onNote?: (done: number) => void,
  apart: Apart = 'strings',
): readonly (readonly Choice[])[] {
  const { shifts, ...limits } = task.limits;
  const free = { ...task, limits };
  const choices = choicesOf(free);
  const told = { apart, ...(onNote && { onNote }) };
  const ways = searched(free, choices, k, { ...told });
  return shifts === undefined || ways.every((way) => movesOn(way) <= shifts)
    ? ways
    : searched(free, choices, k, { ...told, shifts });
}

/**
 * Cost of a whole way, note by note.
 *
 * @example costOfWay(task, waysOf(task, 1)[0]) > 0 // true
 */
export function costOfWay(task: PlanTask, way: readonly Choice[]): number {
  let run = 1;
  let slid = false;
  let moved = false;
  return way.reduce((sum, c, i) => {
    const before = way[i - 1];
    if (!before) return costOf(task, c);
    run = before.spot.string === c.spot.string ? run + 1 : 1;
    const by = wayBetween(before, c);
    const slides = by === 'slide';
    moved ||= by !== null;
    const again = slides && slid ? COST.slideAgain : 0;
    slid = slides;
    return (
      sum + costOf(task, c) + costBetween(task, before, c, run === 3) + again + (moved ? openLate(c) : 0)
    );
  }, 0);
}

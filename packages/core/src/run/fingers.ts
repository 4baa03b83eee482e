import { type Neck } from '../neck.ts';
import { COST } from './costs.ts';
import { bentBy, type Grip, gripsOf, type HandOptions, passage, TOO_FAR } from './grips.ts';
import { isAlike, type Kind, kindsOf, stillGrips } from './alike.ts';
import { groupsOf, slidNote, TWIN_NOTES } from './groups.ts';
import { type Fingered, moveBetween, movesAt, type Route, stretchOf } from './run.ts';

/** A route with its fingers. */
export interface Fingering {
  readonly steps: readonly Fingered[];
  readonly cost: number;
  /** Places where the hand moves. */
  readonly shifts: number;
  readonly stretches: number;
}

/** What the search knows of each note before it begins. */
interface Plan {
  /** Whether it is the note of its group to which players slide. */
  readonly slid: boolean;
  /** Where the finger of the note's twin is remembered, −1 where it has none. */
  readonly recall: number;
  /** Where its own finger is to be remembered, −1 where no later note asks for it. */
  readonly keep: number;
}

/** A finger takes three bits of a state's memory. */
const BITS = 3;
const SLOTS = 2 * TWIN_NOTES;
const FINGER = (1 << BITS) - 1;
const LOWEST_BITS = Array.from({ length: SLOTS }, (_, s) => 1 << (BITS * s)).reduce((a, b) => a | b, 0);

function planOf(route: Route): readonly Plan[] {
  const groups = groupsOf(route);
  const asked = new Set<number>();
  const twin = route.map(() => -1);
  const slid = route.map(() => false);
  for (const g of groups) {
    const at = slidNote(route, g);
    if (at >= 0) slid[at] = true;
    if (g.twin < 0) continue;
    for (let k = 0; g.from + k < g.to; k++) {
      twin[g.from + k] = groups[g.twin]!.from + k;
      asked.add(groups[g.twin]!.from + k);
    }
  }
  const slotOf = new Map<number, number>();
  const free = Array.from({ length: SLOTS }, (_, s) => s);
  return route.map((_, i) => {
    const recall = slotOf.get(twin[i]!) ?? -1;
    if (recall >= 0) free.push(recall);
    const keep = asked.has(i) ? free.pop()! : -1;
    if (keep >= 0) slotOf.set(i, keep);
    return { slid: slid[i]!, recall, keep };
  });
}

/** How many fingers two memories hold differently. */
function differing(a: number, b: number): number {
  const x = a ^ b;
  let rest = (x | (x >> 1) | (x >> 2)) & LOWEST_BITS;
  let count = 0;
  for (; rest; rest &= rest - 1) count++;
  return count;
}

/** The best way found to come to a grip with these memories. */
interface State {
  readonly grip: number;
  readonly memory: number;
  /** Which fingers were stretched since the hand moved last. */
  readonly bent: number;
  /** Whether the finger slid here. */
  readonly slid: boolean;
  readonly cost: number;
  readonly from: State | null;
  /** Notes fingered differently from each barred fingering so far, counted up to the number wanted. */
  readonly differs: readonly number[];
}

/** Whether a state at the same grip is at least as good whatever comes, even where all its memories still cost. */
function beats(a: State, b: State): boolean {
  if (a.cost > b.cost || a.bent & ~b.bent || (a.slid && !b.slid)) return false;
  for (let i = 0; i < a.differs.length; i++) if (a.differs[i]! < b.differs[i]!) return false;
  return a.memory === b.memory || a.cost + COST.unlike * differing(a.memory, b.memory) <= b.cost;
}

/** Takes a state in unless one of those kept beats it, and drops those that it beats. */
function admit(kept: State[], state: State): void {
  for (const other of kept) if (beats(other, state)) return;
  let to = 0;
  for (const other of kept) if (!beats(state, other)) kept[to++] = other;
  kept.length = to;
  kept.push(state);
}

/** A fingering that differs from each of `barred` in the fingers of at least `least` notes, at least cost; or null. */
function cheapest(
  neck: Neck,
  route: Route,
  hand: HandOptions,
  barred: readonly Fingering[],
  least: number,
): Fingering | null {
  if (!route.length) return { steps: [], cost: 0, shifts: 0, stretches: 0 };
  const grips = gripsOf(neck, route, hand);
  const plan = planOf(route);
  const count = (differs: readonly number[], i: number, finger: number): readonly number[] =>
    barred.length
      ? differs.map((d, b) => Math.min(least, d + (barred[b]!.steps[i]!.finger === finger ? 0 : 1)))
      : differs;
  const none = barred.map(() => 0);
  let states: State[] = grips[0]!.map((g, k) => ({
    grip: k,
    memory: plan[0]!.keep < 0 ? 0 : g.finger << (BITS * plan[0]!.keep),
    bent: bentBy(g),
    slid: false,
    cost: g.cost,
    from: null,
    differs: count(none, 0, g.finger),
  }));
  const way: number[] = [];
  const slides: boolean[] = [];
  for (let i = 1; i < route.length; i++) {
    const { slid, recall, keep } = plan[i]!;
    const [a, b, before, here] = [route[i - 1]!, route[i]!, grips[i - 1]!, grips[i]!];
    const next: State[] = [];
    for (let k = 0; k < here.length; k++) {
      const g = here[k]!;
      const kept: State[] = [];
      const own = keep < 0 ? 0 : g.finger << (BITS * keep);
      for (let j = 0; j < before.length; j++) {
        way[j] = passage(a, before[j]!, b, g, slid, hand.school) + g.cost;
        slides[j] = moveBetween(a, before[j]!, b, g) === 'slide';
      }
      for (const from of states) {
        // What is asked for with its place of the hand is taken so, however far it is.
        const stays = b.hand === undefined && before[from.grip]!.hand === g.hand;
        const bent = bentBy(g) | (stays ? from.bent : 0);
        if (bent === TOO_FAR) continue;
        let { memory } = from;
        let cost = from.cost + way[from.grip]! + (from.slid && slides[from.grip] ? COST.slideAgain : 0);
        if (recall >= 0) {
          if (((memory >> (BITS * recall)) & FINGER) !== g.finger) cost += COST.unlike;
          memory &= ~(FINGER << (BITS * recall));
        }
        const differs = count(from.differs, i, g.finger);
        admit(kept, { grip: k, memory: memory | own, bent, slid: slides[from.grip]!, cost, from, differs });
      }
      for (const state of kept) next.push(state);
    }
    states = next;
  }
  let end: State | null = null;
  for (const s of states) if (s.differs.every((d) => d >= least) && (!end || s.cost < end.cost)) end = s;
  return end && read(route, grips, end);
}

function read(route: Route, grips: readonly (readonly Grip[])[], end: State): Fingering {
  const steps: Fingered[] = [];
  for (let state: State | null = end, i = route.length - 1; state; state = state.from, i--) {
    const { finger, hand } = grips[i]![state.grip]!;
    steps.push({ spot: route[i]!, finger, hand });
  }
  steps.reverse();
  return {
    steps,
    cost: end.cost,
    shifts: steps.filter((_, i) => movesAt(steps, i)).length,
    stretches: steps.filter((s) => stretchOf(s) !== 0).length,
  };
}

/** No more ways than this to grip the kinds of a route are tried, and none for a line of more notes, in which one shift more is nothing. */
const MOST = { ways: 240, notes: 64 };
/** How many shifts more than without it alike groups may cost. */
export const ALIKE_SHIFTS = 1;

/** Every way to choose one of each. */
const eachOf = <T>(all: readonly (readonly T[])[]): readonly (readonly T[])[] =>
  all.reduce<readonly (readonly T[])[]>(
    (so, some) => so.flatMap((way) => some.map((it) => [...way, it])),
    [[]],
  );

/**
 * A fingering in which groups of a kind are gripped alike, as one place of the hand could, where that costs at most one shift more: of
 * as many kinds as can be, at least cost. What repeats is remembered.
 */
function alike(neck: Neck, route: Route, hand: HandOptions, base: Fingering): Fingering {
  if (route.length > MOST.notes) return base;
  // What is asked of a group is not asked again.
  const isFree = ({ from, to }: Kind['groups'][number]): boolean =>
    route.slice(from, to).every(({ by }) => by === undefined);
  const kinds = kindsOf(route).filter(({ groups }) => groups.every(isFree));
  const unlike = kinds.filter((kind) => !isAlike(base, kind));
  if (!unlike.length) return base;
  const grips = unlike.map(({ frets }) => stillGrips(frets, hand.school));
  const subsets = Array.from({ length: (1 << unlike.length) - 1 }, (_, mask) =>
    unlike.flatMap((_kind, i) => ((mask + 1) & (1 << i) ? [i] : [])),
  ).sort((a, b) => b.length - a.length);
  let tried = 0;
  for (const most of new Set(subsets.map((set) => set.length))) {
    let best: Fingering | null = null;
    for (const set of subsets.filter(({ length }) => length === most)) {
      const many = set.reduce((n, i) => n * grips[i]!.length, 1);
      if (tried + many > MOST.ways) continue;
      tried += many;
      for (const way of eachOf(set.map((i) => grips[i]!))) {
        const asked = [...route];
        way.forEach((grip, nth) => {
          for (const { from } of unlike[set[nth]!]!.groups)
            grip.forEach((by, k) => (asked[from + k] = { ...route[from + k]!, by }));
        });
        const found = cheapest(neck, asked, hand, [], 0);
        const leaves = found?.steps.some(({ hand: at }, i) => at !== (route[i]!.hand ?? at));
        if (
          !found ||
          leaves ||
          found.shifts > base.shifts + ALIKE_SHIFTS ||
          (best && best.cost <= found.cost)
        )
          continue;
        if (kinds.filter((kind) => !isAlike(found, kind)).length <= unlike.length - most) best = found;
      }
    }
    if (best) return best;
  }
  return base;
}

/**
 * The fingers of a route: at least cost over all possibilities, by dynamic programming over the grips of each note and the fingers of
 * those notes whose twins are still to come; groups that are alike are gripped alike where that costs at most one shift more. Going
 * down is solved for itself: pass the notes in that order.
 *
 * @example fingers(neck, box.spots, hand).steps.map((s) => s.finger) // [1,4,1,3,1,3,1,3,1,4,1,4]
 */
export function fingers(neck: Neck, route: Route, hand: HandOptions): Fingering {
  return alike(neck, route, hand, cheapest(neck, route, hand, [], 0)!);
}

/** Notes whose fingers must differ for a fingering to be another one. */
const REALLY_DIFFERENT = 2;

/**
 * Up to `count` fingerings, the best first; each differs from every earlier one in the fingers of two notes or more.
 *
 * @example fingerings(neck, box.spots, hand, 3).length // 3
 */
export function fingerings(neck: Neck, route: Route, hand: HandOptions, count: number): readonly Fingering[] {
  const found: Fingering[] = count > 0 ? [fingers(neck, route, hand)] : [];
  while (found.length < count) {
    const next = cheapest(neck, route, hand, found, REALLY_DIFFERENT);
    if (!next) break;
    found.push(next);
  }
  return found;
}

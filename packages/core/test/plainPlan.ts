import {
  type Choice,
  choicesOf,
  costBetween,
  costOf,
  costOfWay,
  COST,
  LINE_COST,
  handPlaces,
  type PlanTask,
  stepOf,
  wayBetween,
} from './core.ts';

/** Visits of strings, as counts of notes. */
function visits(way: readonly Choice[]): readonly number[] {
  const out: number[] = [];
  way.forEach((c, i) => {
    if (i && way[i - 1]!.spot.string === c.spot.string) out[out.length - 1]!++;
    else out.push(1);
  });
  return out;
}
/** Whether no place of the hand has the index finger back and the last one forward, or takes more frets or mm than it may. */
function isReached({ neck, hand, limits }: PlanTask, way: readonly Choice[]): boolean {
  const steps = way.map(stepOf);
  const bent = (from: number, to: number, by: number): boolean =>
    way.slice(from, to).some(({ grip }) => grip.stretch === by);
  const { reach = 4, reachMm = Infinity } = limits;
  return (
    handPlaces(neck, steps).every(
      ({ from, to, frets: [low, high], mm }) =>
        !(bent(from, to, -1) && bent(from, to, 1)) && high - low <= Math.min(4, reach) && mm <= reachMm,
    ) &&
    (reach >= (hand.school === 'onePerFret' || hand.school === 'oneTwoFour' ? 4 : 3) ||
      (!bent(0, way.length, -1) && !bent(0, way.length, 1)))
  );
}
/** Every way there is, the easiest first, by trying all of them: what the limits say, read as they are said. */
export function everyWay(task: PlanTask): readonly (readonly Choice[])[] {
  const { limits } = task;
  let ways: (readonly Choice[])[] = [[]];
  for (const choices of choicesOf({ ...task, limits: {} }))
    ways = ways.flatMap((w) => choices.map((c) => [...w, c]));
  return ways
    .filter((w) => {
      const between = w.slice(1).flatMap((c, i) => wayBetween(w[i]!, c) ?? []);
      const { least = 1, most = 99, shifts = 99 } = limits;
      return (
        isReached(task, w) &&
        (!limits.closed || w.every(({ grip }) => grip.finger > 0)) &&
        w.every((c) => limits.strings?.includes(c.spot.string) ?? true) &&
        visits(w).every((n, i, all) => n <= most && (n >= least || i === 0 || i === all.length - 1)) &&
        between.every((by) => limits.ways?.includes(by) ?? true) &&
        between.length <= shifts
      );
    })
    .map((w) => ({ w, cost: costOfWay(task, w) }))
    .sort((a, b) => a.cost - b.cost)
    .map(({ w }) => w);
}

/** The cost of the easiest way without regard to limits, note by note, with a record for every choice and count of notes. */
export function plainBest(task: PlanTask): number {
  const all = choicesOf({ ...task, limits: {} });
  /** By the count of notes on the string, the stretch that the place of the hand has by now, whether the hand has moved, and slid last. */
  type Kept = Map<string, number>;
  let reached = new Map(
    all[0]!.map((c): [Choice, Kept] => [c, new Map([[`1 ${c.grip.stretch} 0 0`, costOf(task, c)]])]),
  );
  for (const choices of all.slice(1)) {
    const next = new Map(choices.map((c): [Choice, Kept] => [c, new Map()]));
    for (const [a, kept] of reached)
      for (const [b, best] of next)
        for (const [word, cost] of kept) {
          const [count, was, moved, slid] = word.split(' ').map(Number) as [number, number, number, number];
          const stretch = a.grip.hand === b.grip.hand && was ? was : b.grip.stretch;
          if (stretch * b.grip.stretch < 0) continue;
          const now = a.spot.string === b.spot.string ? count + 1 : 1;
          const by = wayBetween(a, b);
          const far = Number(moved > 0 || by !== null);
          const late =
            far && b.grip.finger === 0 && b.grip.hand === 1 ? LINE_COST.open - LINE_COST.openAtNut : 0;
          const again = slid && by === 'slide' ? COST.slideAgain : 0;
          const sum = cost + costOf(task, b) + costBetween(task, a, b, now === 3) + late + again;
          const to = `${now} ${stretch} ${far} ${Number(by === 'slide')}`;
          if (sum < (best.get(to) ?? Infinity)) best.set(to, sum);
        }
    reached = next;
  }
  return Math.min(...[...reached.values()].flatMap((kept) => [...kept.values()]));
}

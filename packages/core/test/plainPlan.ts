import {
  type Choice,
  choicesOf,
  costBetween,
  costOf,
  costOfWay,
  type PlanTask,
  stepOf,
  stretchMm,
  wayBetween,
} from '../src/index.ts';

/** Visits of strings, as counts of notes. */
function visits(way: readonly Choice[]): readonly number[] {
  const out: number[] = [];
  way.forEach((c, i) => {
    if (i && way[i - 1]!.spot.string === c.spot.string) out[out.length - 1]!++;
    else out.push(1);
  });
  return out;
}
/** Every way there is, the easiest first, by trying all of them: what the limits say, read as they are said. */
export function everyWay(task: PlanTask): readonly (readonly Choice[])[] {
  const { limits } = task;
  let ways: (readonly Choice[])[] = [[]];
  for (const choices of choicesOf({ ...task, limits: {} }))
    ways = ways.flatMap((w) => choices.map((c) => [...w, c]));
  const last = task.hand.school === 'onePerFret' ? 4 : 3;
  return ways
    .filter((w) => {
      const wide = w.map((c) => stretchMm(task.neck, task.hand.school, stepOf(c)));
      const between = w.slice(1).flatMap((c, i) => wayBetween(w[i]!, c) ?? []);
      const { reach = 99, reachMm = Infinity, least = 1, most = 99, shifts = 99 } = limits;
      return (
        wide.every((mm) => (mm > 0 ? last : last - 1) <= reach && mm <= reachMm) &&
        w.every((c) => limits.strings?.includes(c.spot.string) ?? true) &&
        visits(w).every((n) => n >= least && n <= most) &&
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
  let reached = new Map(all[0]!.map((c) => [c, new Map([[1, costOf(task, c)]])]));
  for (const choices of all.slice(1)) {
    const next: typeof reached = new Map(choices.map((c) => [c, new Map<number, number>()]));
    for (const [a, counts] of reached)
      for (const [b, best] of next)
        for (const [count, cost] of counts) {
          const now = a.spot.string === b.spot.string ? count + 1 : 1;
          const sum = cost + costOf(task, b) + costBetween(task, a, b, now === 3);
          if (sum < (best.get(now) ?? Infinity)) best.set(now, sum);
        }
    reached = next;
  }
  return Math.min(...[...reached.values()].flatMap((counts) => [...counts.values()]));
}

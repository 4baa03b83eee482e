import { type Choice, choicesOf, costOfWay, type PlanTask, stretchMm, wayBetween } from '../src/index.ts';

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
      const wide = w.map((c) => stretchMm(task, c));
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

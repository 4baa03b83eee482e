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
/** Whether no place of the hand has the index finger back and the last one forward. */
function isReached(way: readonly Choice[], last: number): boolean {
  let frets: number[] = [];
  return way.every(({ spot, grip }, i) => {
    if (grip.hand !== way[i - 1]?.grip.hand) frets = [];
    if (grip.finger > 0) frets.push(spot.fret);
    return Math.max(...frets, 0) - Math.min(...frets, 99) <= last;
  });
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
        isReached(w, last) &&
        wide.every((mm) => (mm > 0 ? last : last - 1) <= reach && mm <= reachMm) &&
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
  /** By the count of notes on the string, and the stretch that the place of the hand has by now. */
  type Kept = Map<string, number>;
  let reached = new Map(
    all[0]!.map((c): [Choice, Kept] => [c, new Map([[`1 ${c.grip.stretch}`, costOf(task, c)]])]),
  );
  for (const choices of all.slice(1)) {
    const next = new Map(choices.map((c): [Choice, Kept] => [c, new Map()]));
    for (const [a, kept] of reached)
      for (const [b, best] of next)
        for (const [word, cost] of kept) {
          const [count, was] = word.split(' ').map(Number) as [number, number];
          const stretch = a.grip.hand === b.grip.hand && was ? was : b.grip.stretch;
          if (stretch * b.grip.stretch < 0) continue;
          const now = a.spot.string === b.spot.string ? count + 1 : 1;
          const sum = cost + costOf(task, b) + costBetween(task, a, b, now === 3);
          const to = `${now} ${stretch}`;
          if (sum < (best.get(to) ?? Infinity)) best.set(to, sum);
        }
    reached = next;
  }
  return Math.min(...[...reached.values()].flatMap((kept) => [...kept.values()]));
}

import { diagonalGroups } from '../layouts/diagonal.ts';
import { above, walk } from '../layouts/walk.ts';
import { pitchAt } from '../neck.ts';
import { ok, refuse } from '../result.ts';
import { type Route } from '../run/run.ts';
import { defineClimb } from './climb.ts';

const RING = 3;

/**
 * Diagonal: groups of two and three in turn through the root that was chosen, from whichever string; extended down as far as
 * the neck goes, and ending on a root.
 */
export const diagonalClimb = defineClimb<Record<never, never>>({
  kind: 'diagonal',
  name: 'diagonal',
  said: () => 'by the diagonal',
  goodFor: 'crossing the whole neck with two fingers, the ring finger on every root',
  complete: true,
  options: {},
  usual: () => ({}),
  up: ({ neck, key, front, root }) => {
    const n = key.scale.degrees.length;
    const groups = diagonalGroups(key.scale);
    if (!groups.ok) return groups;
    const { takes, cycles } = groups.value;
    const starts = cycles.find((c) => c.includes(front.start)) ?? cycles[0]!;
    const take = (d: number): number => takes[d]!;
    /** The group that holds the root: its first note, counted from the root. */
    const back = starts.map((d) => (n - d) % n).find((steps, i) => steps < take(starts[i]!));
    const at = neck.rising.indexOf(root.string);
    let first = above(key, { midi: pitchAt(neck, root.string, root.fret), degree: 0 }, -(back ?? 0));
    let from = at;
    let best: Route = walk(neck, key, first, [root.string], take) ?? [];
    // Group by group down to the lowest string, as long as the neck has room.
    while (from > 0) {
      const before = starts[(starts.indexOf(first.degree) + starts.length - 1) % starts.length]!;
      const lower = above(key, first, -take(before));
      const walked = walk(neck, key, lower, neck.rising.slice(from - 1, at + 1), take);
      if (!walked) break;
      [first, from, best] = [lower, from - 1, walked];
    }
    // And up as far as it goes.
    for (let to = at + 2; to <= neck.rising.length; to++) {
      const walked = walk(neck, key, first, neck.rising.slice(from, to), take);
      if (!walked) break;
      best = walked;
    }
    // Behind its lead-in a root is the ring finger's, wherever the line ends.
    if (back) best = best.map((s) => (s.degree === 0 ? { ...s, by: RING } : s));
    const last = best.reduce((so, s, i) => (s.degree === 0 ? i : so), -1);
    return last > 0
      ? ok(best.slice(0, last + 1))
      : refuse('climb.room', 'From this root the diagonal leaves the neck at once: choose another root.');
  },
});

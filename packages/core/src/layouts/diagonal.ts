import { ok, refuse, type Result } from '../result.ts';
import { type Scale } from '../scale.ts';
import { defineLayout } from './layout.ts';
import { fitting, type ReachGroups, reachGroups, repeatsWithin, walksAlong } from './walk.ts';

/** The reach of the diagonal, in frets. */
const REACH = 4;

/** The groups of two and three that make an octave of a scale, every cycle of them; code `layout.scale` where there is none. */
export function diagonalGroups({ steps }: Scale): Result<ReachGroups> {
  const { takes, cycles } = reachGroups(steps, REACH);
  const twoAndThree = cycles.filter(
    (c) => c.length === 2 && steps.length === 5 && [2, 3].every((size) => c.some((d) => takes[d] === size)),
  );
  return twoAndThree.length
    ? ok({ takes, cycles: twoAndThree })
    : refuse(
        'layout.scale',
        'The diagonal needs a scale whose octave falls into two notes and three, each within 4 frets; this one does not.',
      );
}

/** Diagonal: reach 4 where two strings in turn hold exactly one octave of two and three notes. */
export const diagonal = defineLayout({
  kind: 'diagonal',
  name: 'diagonal',
  rule: 'Two and three notes in turn, climbing the neck by an octave every two strings.',
  complete: true,
  options: {},
  place: (neck, key) => {
    const groups = diagonalGroups(key.scale);
    if (!groups.ok) return groups;
    const { takes, cycles } = groups.value;
    return fitting(
      walksAlong(neck, key, (d) => takes[d]!, new Set(cycles.flat())),
      'The diagonal',
    );
  },
  usual: () => ({}),
  said: () => 'on the diagonal',
  repeats: ({ steps }) => repeatsWithin(steps, REACH),
});

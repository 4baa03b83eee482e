import { refuse } from '../result.ts';
import { defineLayout } from './layout.ts';
import { fitting, reachGroups, repeatsWithin, walksAlong } from './walk.ts';

/** The reach of the diagonal, in frets. */
const REACH = 4;

/** Diagonal: reach 4 where two strings in turn hold exactly one octave of two and three notes. */
export const diagonal = defineLayout({
  kind: 'diagonal',
  name: 'diagonal',
  rule: 'Two and three notes in turn, climbing the neck by an octave every two strings.',
  complete: true,
  options: {},
  place: (neck, key) => {
    const { steps } = key.scale;
    const { takes, cycles } = reachGroups(steps, REACH);
    const starts = cycles.filter(
      (c) => c.length === 2 && steps.length === 5 && [2, 3].every((size) => c.some((d) => takes[d] === size)),
    );
    if (!starts.length)
      return refuse(
        'layout.scale',
        'The diagonal needs a scale whose octave falls into two notes and three, each within 4 frets; this one does not.',
      );
    return fitting(
      walksAlong(neck, key, (d) => takes[d]!, new Set(starts.flat())),
      'The diagonal',
    );
  },
  usual: () => ({}),
  said: () => 'on the diagonal',
  repeats: ({ steps }) => repeatsWithin(steps, REACH),
});

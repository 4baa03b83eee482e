import { defineLayout } from './layout.ts';
import { fitting, reachGroups, repeatsWithin, walksAlong } from './walk.ts';

/** By reach: as many notes as fit the reach, begun only on degrees whose groups recur. */
export const byReach = defineLayout<{ readonly reach: number }>({
  kind: 'reach',
  name: 'by reach',
  rule: 'As many notes stay on a string as fit the reach.',
  complete: true,
  options: {
    reach: {
      type: 'whole',
      min: 2,
      max: 6,
      label: 'Reach in frets',
      hint: '3 is one finger per fret, 4 a stretch.',
    },
  },
  place: (neck, key, { reach }) => {
    const { takes, cycles } = reachGroups(key.scale.steps, reach);
    const starts = new Set(cycles.flat());
    return fitting(
      walksAlong(neck, key, (d) => takes[d]!, starts),
      `Reach ${reach}`,
    );
  },
  usual: ({ scale }) => ({ reach: scale.degrees.length <= 5 ? 4 : 3 }),
  said: ({ reach }) => `within a reach of ${reach} frets`,
  repeats: ({ steps }, { reach }) => repeatsWithin(steps, reach),
});

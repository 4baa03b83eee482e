import { refuse } from '../result.ts';
import { defineDrill, octaveIn, played } from './drill.ts';

interface Options {
  readonly seed: number;
  readonly notes: number;
  /** How many strings a jump crosses at most. */
  readonly strings: number;
}

/** Numbers from 0 to below 1 that look like chance and are the same for a seed: a multiplicative congruential generator (Park and Miller, 1988). */
export function seeded(seed: number): () => number {
  let state = (seed % 2_147_483_646) + 1;
  return () => {
    state = (state * 48_271) % 2_147_483_647;
    return state / 2_147_483_647;
  };
}

/** Random notes from the root on, never the same one twice in a row. */
export const jumps = defineDrill<Options>({
  kind: 'jumps',
  name: 'jumps',
  goodFor: 'breaking the habit of running up and down',
  options: {
    seed: { type: 'whole', min: 1, max: 9999, label: 'Seed', hint: 'Another number is another line.' },
    notes: { type: 'whole', min: 4, max: 96, label: 'Notes' },
    strings: { type: 'whole', min: 0, max: 11, label: 'Strings crossed at most' },
  },
  usual: () => ({ seed: 1, notes: 16, strings: 2 }),
  play: ({ neck, notes }, { seed, notes: many, strings }) => {
    const chance = seeded(seed);
    const rank = (string: number): number => neck.rising.indexOf(string);
    const found = octaveIn(notes);
    const line = [notes[found.ok ? found.value.root : 0]!];
    while (line.length < many) {
      const last = line.at(-1)!;
      const near = notes.filter(
        (n) => n.midi !== last.midi && Math.abs(rank(n.string) - rank(last.string)) <= strings,
      );
      if (!near.length)
        return refuse(
          'drill.notes',
          'There is no other note within so many strings: let it cross more of them.',
        );
      line.push(near[Math.floor(chance() * near.length)]!);
    }
    return played(line);
  },
});

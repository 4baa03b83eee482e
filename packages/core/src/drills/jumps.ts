import { refuse } from '../result.ts';
import { defineDrill, octaveIn, played } from './drill.ts';
import { seeded } from '../seeded.ts';
import { seedOption } from './seedOption.ts';

interface Options {
  readonly seed: number;
  readonly notes: number;
  /** How many strings a jump crosses at most. */
  readonly strings: number;
}

/** Random notes from the root on, never the same one twice in a row. */
export const jumps = defineDrill<Options>({
  kind: 'jumps',
  name: 'jumps',
  goodFor: 'breaking the habit of running up and down',
  options: {
    seed: seedOption,
    notes: { type: 'whole', min: 4, max: 96, label: 'Notes in the line' },
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

import { refuse } from '../result.ts';
import { type RouteNote } from '../run/run.ts';
import { triadOn } from '../triad.ts';
import { defineDrill, played } from './drill.ts';
import { seeded } from '../seeded.ts';
import { seedOption } from './seedOption.ts';

interface Options {
  readonly chords: string;
  readonly times: number;
  readonly many: number;
  readonly seed: number;
}

/** Roots of the key's chords by chance, each struck some times, never the same one twice in a row. */
export const roots = defineDrill<Options>({
  kind: 'roots',
  name: 'roots of chords',
  goodFor: 'finding the root of any chord of the key at once, as a bass player does',
  options: {
    chords: {
      type: 'choice',
      label: 'Chords',
      values: [
        { id: 'all', name: 'major and minor' },
        { id: 'major', name: 'major alone' },
        { id: 'minor', name: 'minor alone' },
      ],
    },
    times: { type: 'whole', min: 1, max: 8, label: 'Times that each is struck' },
    many: { type: 'whole', min: 2, max: 32, label: 'Roots' },
    seed: seedOption,
  },
  joined: { by: ',', option: 'chords' },
  usual: () => ({ chords: 'all', times: 4, many: 8, seed: 1 }),
  play: ({ notes, key }, { chords, times, many, seed }) => {
    const wanted = notes.filter(({ degree }) => {
      const triad = degree < 0 ? null : triadOn(key.scale, degree);
      return triad !== null && (chords === 'all' || triad === chords);
    });
    if (new Set(wanted.map((n) => n.degree)).size < 2)
      return refuse('drill.notes', 'There are not two such chords in this scale here: ask for others.');
    const chance = seeded(seed);
    const line: RouteNote[] = [];
    for (let i = 0; i < many; i++) {
      const others = wanted.filter((n) => n.degree !== line.at(-1)?.degree);
      line.push(others[Math.floor(chance() * others.length)]!);
    }
    return played(
      line.flatMap((note) => Array.from({ length: times }, () => note)),
      times,
    );
  },
});

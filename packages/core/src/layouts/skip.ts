import { degreeName } from '../degree.ts';
import { pretty } from '../note.ts';
import { offsetsAltered } from '../alter.ts';
import { mod } from '../arithmetic.ts';
import { numberWord } from '../words.ts';
import { refuse } from '../result.ts';
import { type Scale } from '../scale.ts';
import { usualCount } from './byCount.ts';
import { defineLayout, type LayoutOf } from './layout.ts';
import { type PlacedSpot, type Placement } from '../placement.ts';
import { type Alteration, alteredOn } from '../kinds/option.ts';
import { above, fitting, notesOn, walk } from './walk.ts';

export interface SkipOptions {
  /** Notes on each string after two neighbours are united. */
  readonly perString: number;
  /** 0 begins on the lowest string, 1 on the next. */
  readonly from: 0 | 1;
  readonly altered: readonly Alteration[];
}

/** Why alterations cannot be: a note would fall on another one that is in the shape already. */
function collision({ degrees, offsets }: Scale, altered: readonly Alteration[]): string | null {
  const sounds = offsetsAltered({ offsets }, altered);
  const otherThan = ({ degree, by }: Alteration): number =>
    sounds.findIndex((on, d) => d !== degree && on.includes(mod(offsets[degree]! + by, 12)));
  const moved = altered.find((a) => a.degree < offsets.length && otherThan(a) >= 0);
  if (!moved) return null;
  const other = otherThan(moved);
  const name = (d: number): string => pretty(degreeName(degrees[d]!));
  return `The ${name(moved.degree)} ${moved.by < 0 ? 'lowered' : 'raised'} falls on the ${name(other)}, which is there already: alter another note.`;
}

/** String skip: two neighbouring by-count positions united, on every other string, with notes altered at will. */
export const skipLayout: LayoutOf<SkipOptions> = {
  kind: 'skip',
  name: 'string skip',
  rule: 'Two neighbouring positions united, on every other string.',
  complete: false,
  options: {
    perString: { type: 'whole', min: 2, max: 5, label: 'Notes on a string' },
    from: {
      type: 'choice',
      label: 'Begin on',
      values: [
        { id: 1, name: 'the second string from below' },
        { id: 0, name: 'the lowest string' },
      ],
    },
    altered: { type: 'altered', label: 'Alter single notes by a half step' },
  },
  place: (neck, key, { perString, from, altered }) => {
    const strings = neck.rising.filter((_, i) => i % 2 === from);
    if (strings.length < 2)
      return refuse('layout.neck', 'There are too few strings to leave every other one out.');
    const falls = collision(key.scale, altered);
    if (falls) return refuse('layout.option', falls);
    const base = perString - 1;
    const placements = notesOn(neck, key, neck.rising[0]!).flatMap((start): Placement[] => {
      const spots: PlacedSpot[] = [];
      for (const string of strings) {
        const first = above(key, start, neck.rising.indexOf(string) * base);
        const group = walk(neck, key, first, [string], () => perString);
        if (!group) return [];
        for (const spot of group) {
          const by = alteredOn(altered, spot.degree, string)?.by;
          const moved =
            by === undefined ? spot : { ...spot, fret: spot.fret + by, midi: spot.midi + by, altered: by };
          if (moved.fret < 0 || moved.fret > neck.frets) return [];
          spots.push(moved);
        }
      }
      return [{ spots: spots.sort((a, b) => a.midi - b.midi) }];
    });
    return fitting(placements, 'The united shape');
  },
  usual: ({ scale }) => ({ perString: Math.min(5, usualCount(scale) + 1), from: 1, altered: [] }),
  bySize: true,
  said: ({ perString }) => `skipping strings, ${numberWord(perString)} notes each`,
};
export const skip = defineLayout(skipLayout);

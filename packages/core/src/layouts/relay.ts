import { LIMITS } from '../instrument.ts';
import { plural } from '../words.ts';
import { refuse } from '../result.ts';
import { NOTES_PER_STRING, usualCount } from './byCount.ts';
import { defineLayout, type LayoutOf } from './layout.ts';
import { type PlacedSpot, type Placement } from '../placement.ts';
import { above, fitting, notesOn, walk } from './walk.ts';

export interface RelayOptions {
  /** Notes of a leg, a multiple of `perString`. */
  readonly notes: number;
  readonly perString: number;
}

/**
 * Relay: the first notes of one position, then from one string back the same number of the next position up,
 * until the top string. Each leg spans m = notes / perString strings.
 */
export const relayLayout: LayoutOf<RelayOptions> = {
  kind: 'relay',
  name: 'relay',
  rule: 'The first notes of one position, then one string back and one position up.',
  complete: false,
  options: {
    notes: {
      type: 'whole',
      min: 1,
      max: LIMITS.strings[1] * NOTES_PER_STRING.max,
      label: 'Notes of a leg',
      hint: 'A leg is what is played in one position before the next one takes over.',
    },
    perString: { type: 'whole', ...NOTES_PER_STRING, label: 'Notes per string' },
  },
  place: (neck, key, { notes, perString }) => {
    const strings = neck.rising.length;
    if (notes % perString !== 0)
      return refuse(
        'layout.option',
        `The notes of a leg are a multiple of the notes per string: ${perString}, ${2 * perString}, ${3 * perString} …`,
      );
    const span = notes / perString;
    if (span < 3 || span >= strings)
      return refuse(
        'layout.option',
        strings < 4
          ? `A leg spans 3 strings or more and leaves one over; this instrument has ${plural(strings, 'string')}.`
          : `A leg spans 3 to ${strings - 1} of the ${plural(strings, 'string')}: ${3 * perString} to ${(strings - 1) * perString} notes.`,
      );
    const firsts: number[] = [0];
    while (firsts.at(-1)! + span < strings) firsts.push(Math.min(firsts.at(-1)! + span - 2, strings - span));
    const take = (): number => perString;
    const legStrings = firsts.map((first) => neck.rising.slice(first, first + span));
    const placements: Placement[] = [];
    for (const from of notesOn(neck, key, neck.rising[0]!)) {
      const spots: PlacedSpot[] = [];
      const whole = firsts.every((first, leg) => {
        // The position `leg` steps up starts on the lowest string with the scale note `leg` degrees higher; its notes
        // on the leg's strings follow `first` strings of perString notes.
        const walked = walk(neck, key, above(key, from, leg + first * perString), legStrings[leg]!, take);
        for (const s of walked ?? [])
          spots.push({ string: s.string, fret: s.fret, midi: s.midi, degree: s.degree, leg });
        return walked !== null;
      });
      if (whole) placements.push({ spots });
    }
    return fitting(placements, `A relay of ${notes} notes`);
  },
  usual: ({ scale, strings }) => {
    const perString = usualCount(scale);
    return { notes: Math.min(4, strings - 1) * perString, perString };
  },
  bySize: true,
  fit: (options, strings) => ({
    ...options,
    notes: Math.min(options.notes, (strings - 1) * options.perString),
  }),
  said: ({ notes }) => `in a relay of ${notes} notes`,
};
export const relay = defineLayout(relayLayout);

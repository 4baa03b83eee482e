import { stringOption } from '../kinds/option.ts';
import { ok, refuse } from '../result.ts';
import { type Route } from '../run/run.ts';
import { defineClimb } from './climb.ts';

interface Options {
  /** The lower-pitched of the two strings; the other is the next one up. */
  readonly string: number;
  /** How many positions it goes through. */
  readonly through: number;
}

/** Two strings: what each position has on a pair of strings, one position after the other, then down the rest of the last one. */
export const twoStrings = defineClimb<Options>({
  kind: 'two',
  name: 'on two strings',
  said: ({ string }) => `on strings ${string} and ${string - 1}`,
  goodFor: 'seeing the whole neck on two strings, with a way back into every box',
  complete: false,
  options: {
    string: stringOption('The lower of the two strings'),
    through: { type: 'whole', min: 1, max: 8, label: 'Positions to go through' },
  },
  usual: ({ neck }) => ({ string: Math.min(4, neck.open.length), through: 3 }),
  up: ({ neck, positions, front }, { string, through }) => {
    const upper = neck.rising[neck.rising.indexOf(string) + 1];
    if (upper === undefined)
      return refuse('climb.option', `No string lies above string ${string}: choose a lower one.`);
    const legs: { readonly notes: Route; readonly index: number }[] = [];
    for (const p of positions.slice(front.index)) {
      const notes = p.spots.filter((s) => s.string === string || s.string === upper);
      const before = legs.at(-1)?.notes;
      if (!notes.length || (before && notes[0]!.fret <= before[0]!.fret)) continue;
      legs.push({ notes, index: p.index });
      if (legs.length === through) break;
    }
    const last = legs.at(-1);
    if (!last || legs.length < through)
      return refuse(
        'climb.room',
        `From here up the neck has ${legs.length} positions on these strings: go through fewer, or begin lower.`,
      );
    const top = last.notes.at(-1)!;
    const rest = positions[last.index]!.spots.filter((s) => s.midi < top.midi).reverse();
    return ok([...legs.flatMap((l) => l.notes), ...rest]);
  },
});

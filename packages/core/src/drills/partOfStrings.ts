import { stringOption } from '../layouts/option.ts';
import { refuse } from '../result.ts';
import { routeThrough } from '../run/route.ts';
import { defineDrill, played, turnOption } from './drill.ts';

interface Options {
  readonly from: number;
  readonly to: number;
  readonly topTwice: boolean;
}

/** The notes on some strings alone, back and forth. */
export const partOfStrings = defineDrill<Options>({
  kind: 'part-of-strings',
  name: 'part of the strings',
  goodFor: 'one place well, before the whole',
  options: { from: stringOption('From string'), to: stringOption('To string'), topTwice: turnOption },
  usual: ({ notes }) => {
    const strings = [...new Set(notes.map((n) => n.string))];
    return { from: strings[0] ?? 1, to: strings[1] ?? strings[0] ?? 1, topTwice: false };
  },
  play: ({ notes }, { from, to, topTwice }) => {
    const [low, high] = [Math.min(from, to), Math.max(from, to)];
    const on = notes.filter(({ string }) => string >= low && string <= high);
    return on.length
      ? played(routeThrough(on, 'both', topTwice))
      : refuse('drill.notes', `There are no notes on strings ${low} to ${high} here: choose other strings.`);
  },
});

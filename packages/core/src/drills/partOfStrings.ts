import { stringOption } from '../kinds/option.ts';
import { refuse } from '../result.ts';
import { type Route } from '../run/run.ts';
import { defineDrill, outAndBack, played, turnOption } from './drill.ts';

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
  play: ({ notes, back }, { from, to, topTwice }) => {
    const [low, high] = [Math.min(from, to), Math.max(from, to)];
    const onThem = (all: Route): Route => all.filter(({ string }) => string >= low && string <= high);
    const on = { notes: onThem(notes), back: onThem(back) };
    return on.notes.length
      ? played(outAndBack(on, 0, on.notes.length - 1, topTwice))
      : refuse('drill.notes', `There are no notes on strings ${low} to ${high} here: choose other strings.`);
  },
});

import { refuse } from '../result.ts';
import { defineLayout } from './layout.ts';
import { stringOption } from '../kinds/option.ts';
import { fitting, notesOn, walk } from './walk.ts';

/**
 * String pair: an octave, half of it on each of two strings that are neighbours in pitch. The string that sounds highest
 * of all is paired with the one below it.
 */
export const pair = defineLayout<{ readonly lower: number }>({
  kind: 'pair',
  name: 'string pair',
  rule: 'Half of the octave on each of two strings.',
  complete: true,
  options: { lower: stringOption('Lower string of the pair') },
  place: (neck, key, { lower: asked }) => {
    const at = Math.min(neck.rising.indexOf(asked), neck.rising.length - 2);
    if (at < 0) return refuse('layout.option', `This instrument has no string ${asked}.`);
    const [lower, upper] = [neck.rising[at]!, neck.rising[at + 1]!];
    const total = key.scale.steps.length + 1;
    const half = Math.ceil(total / 2);
    const placements = notesOn(neck, key, lower).flatMap((from) => {
      const spots = walk(neck, key, from, [lower, upper], (_, place) => (place ? total - half : half));
      return spots ? [{ spots }] : [];
    });
    return fitting(placements, `An octave on strings ${lower} and ${upper}`);
  },
  usual: ({ string }) => ({ lower: string }),
  fit: (options, strings) => ({ ...options, lower: Math.min(options.lower, strings) }),
  atRoot: (options, string) => ({ ...options, lower: string }),
  said: ({ lower }) => `on a pair of strings from string ${lower}`,
});

import { refuse } from '../result.ts';
import { defineLayout } from './layout.ts';
import { stringOption } from '../kinds/option.ts';
import { fitting, notesOn, walk } from './walk.ts';

/** Single string: one octave on one string from each of its scale notes. */
export const single = defineLayout<{ readonly string: number }>({
  kind: 'single',
  name: 'single string',
  rule: 'One octave on one string.',
  complete: true,
  options: { string: stringOption('String') },
  place: (neck, key, { string }) => {
    if (!neck.rising.includes(string))
      return refuse('layout.option', `This instrument has no string ${string}.`);
    const octave = (): number => key.scale.steps.length + 1;
    const placements = notesOn(neck, key, string).flatMap((from) => {
      const spots = walk(neck, key, from, [string], octave);
      return spots ? [{ spots }] : [];
    });
    return fitting(placements, 'An octave on one string');
  },
  usual: ({ string }) => ({ string }),
  fit: (options, strings) => ({ ...options, string: Math.min(options.string, strings) }),
  atRoot: (options, string) => ({ ...options, string }),
  said: ({ string }) => `on string ${string} alone`,
});

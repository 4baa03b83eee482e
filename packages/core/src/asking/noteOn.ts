import { plural } from '../words.ts';
import { type CardKind, judgeTicks } from './question.ts';
import { placesOfDegree, upTo } from './shared.ts';

/** That note on that string. `of` is "string.degree". */
export const noteOn: CardKind = {
  kind: 'note-on',
  name: 'a note on a string',
  goodFor: 'To know the names of the notes on each string.',
  asks: ({ neck, key }) =>
    neck.rising.flatMap((string) => key.scale.degrees.map((_, degree) => `${string}.${degree}`)),
  ask: (ground) => {
    const [string = 0, degree = 0] = ground.of.split('.').map(Number);
    const most = upTo(ground);
    const places = placesOfDegree(ground, degree).filter((it) => it.string === string);
    if (!places.length) return null;
    return {
      says: `Tick ${ground.notes[degree]!} on string ${string}, up to fret ${most}: ${plural(places.length, 'place')}.`,
      given: [],
      frets: [0, most],
      right: { by: 'ticks', places },
      look: places,
      told: `${ground.notes[degree]!} on string ${string}.`,
    };
  },
  judge: judgeTicks,
};

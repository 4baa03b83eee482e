import { stringOption } from '../kinds/option.ts';
import { notesOn } from '../layouts/walk.ts';
import { ok, refuse } from '../result.ts';
import { defineClimb } from './climb.ts';

/** One string: from its lowest root to its highest. */
export const oneString = defineClimb<{ readonly string: number }>({
  kind: 'one',
  name: 'on one string',
  said: ({ string }) => `on string ${string} alone`,
  goodFor: 'hearing the steps, and knowing the notes of a string by name',
  complete: true,
  options: { string: stringOption('String') },
  usual: ({ root }) => ({ string: root.string }),
  up: ({ neck, key }, { string }) => {
    const notes = neck.open[string - 1] === undefined ? [] : notesOn(neck, key, string);
    const first = notes.findIndex((s) => s.degree === 0);
    const last = notes.reduce((at, s, i) => (s.degree === 0 ? i : at), -1);
    return last > first
      ? ok(notes.slice(first, last + 1))
      : refuse('climb.room', `String ${string} has no two roots on this neck: choose another string.`);
  },
});

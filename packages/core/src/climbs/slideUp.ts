import { stringOption } from '../layouts/option.ts';
import { notesOn } from '../layouts/walk.ts';
import { ok, refuse } from '../result.ts';
import { defineClimb } from './climb.ts';
import { aboveFront, joined, lastOn } from './seamShift.ts';

/** Slide: from the last note of a string to the next note of the scale on the same string, and on in the position there. */
export const slideUp = defineClimb<{ readonly string: number }>({
  kind: 'slide',
  name: 'slide along a string',
  goodFor: 'going on without a gap: the finger stays on the string, and the ear hears the way',
  complete: true,
  options: { string: stringOption('The string to slide on') },
  usual: ({ neck }) => ({ string: Math.max(1, Math.ceil(neck.open.length / 2)) }),
  up: (climbing, { string }) => {
    const { neck, key, front } = climbing;
    const to = lastOn(front, string);
    const last = front.spots[to];
    const next = last && notesOn(neck, key, string).find((s) => s.fret > last.fret);
    for (const upper of next ? aboveFront(climbing) : []) {
      const at = upper.spots.findIndex((s) => s.string === string && s.fret === next!.fret);
      if (at >= 0) return ok(joined(front, to, upper, at));
    }
    return refuse(
      'climb.room',
      `No position above goes on from the last note on string ${string}: choose another string, or a lower position.`,
    );
  },
});

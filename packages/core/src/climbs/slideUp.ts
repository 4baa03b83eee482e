import { stringOption } from '../kinds/option.ts';
import { notesOn } from '../layouts/walk.ts';
import { ok, refuse } from '../result.ts';
import { fingers } from '../run/fingers.ts';
import { frettedGrips, LITTLE_SLIDES } from '../run/grips.ts';
import { type Route } from '../run/run.ts';
import { type Climbing, defineClimb } from './climb.ts';
import { aboveFront, joined, lastOn } from './seamShift.ts';

/** A line that slides from one note to the next, on whichever finger is easiest. */
function slid({ neck, hand }: Climbing, line: Route, from: number): Route {
  const far = line[from + 1]!.fret - line[from]!.fret;
  const fingersHere = frettedGrips(neck, line[from]!.fret, hand).map((g) => g.finger);
  const ways = [...new Set(fingersHere)]
    .filter((finger) => finger !== 4 || far <= LITTLE_SLIDES)
    .map((by) => line.map((note, i) => (i === from || i === from + 1 ? { ...note, by } : note)));
  const costs = ways.map((way) => fingers(neck, way, hand).cost);
  return ways[costs.indexOf(Math.min(...costs))] ?? line;
}

/** Slide: from the last note of a string to the next note of the scale on the same string, and on in the position there. */
export const slideUp = defineClimb<{ readonly string: number }>({
  kind: 'slide',
  name: 'slide along a string',
  said: ({ string }) => `by a slide along string ${string}`,
  goodFor: 'going on without a gap: the finger stays on the string, and the ear hears the way',
  complete: true,
  options: { string: stringOption('The string to slide on') },
  usual: ({ neck }) => ({ string: Math.max(1, Math.ceil(neck.open.length / 2)) }),
  up: (climbing, { string }) => {
    const { neck, key, front } = climbing;
    const to = lastOn(front, string);
    const last = front.spots[to];
    const next = last && notesOn(neck, key, string).find((s) => s.fret > last.fret);
    for (const upper of next && last.fret > 0 ? aboveFront(climbing) : []) {
      const at = upper.spots.findIndex((s) => s.string === string && s.fret === next!.fret);
      if (at >= 0) return ok(slid(climbing, joined(front, to, upper, at), to));
    }
    return refuse(
      'climb.room',
      `No position above goes on from the last note on string ${string}: choose another string, or a lower position.`,
    );
  },
});

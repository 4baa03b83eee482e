import { stringOption } from '../kinds/option.ts';
import { type Position } from '../position.ts';
import { ok, refuse } from '../result.ts';
import { frettedGrips } from '../run/grips.ts';
import { type Route } from '../run/run.ts';
import { type Climbing, defineClimb } from './climb.ts';

interface Options {
  /** The string on which the hand goes over. */
  readonly string: number;
  /** The finger that takes the shared note, 0 or undefined for whichever is easiest. */
  readonly finger?: number;
}
const FINGERS = ['whichever is easiest', 'index', 'middle', 'ring', 'little'];

/** The place in a position's order of its last note on a string, −1 where it has none. */
export const lastOn = ({ spots }: Position, string: number): number =>
  spots.reduce((at, s, i) => (s.string === string ? i : at), -1);

/** Up one position to a note of it, then on through another one from that same note or the next one. */
export const joined = (lower: Position, to: number, upper: Position, from: number): Route => [
  ...lower.spots.slice(0, to + 1),
  ...upper.spots.slice(from),
];

/** The positions above the one in front, nearest first. */
export const aboveFront = ({ positions, front }: Climbing): readonly Position[] =>
  positions.filter((p) => p.index > front.index && p.lowFret > front.lowFret);

/** Shift on a seam: up the position in front to a note that the next one shares, where the hand shifts and goes on in that. */
export const seamShift = defineClimb<Options>({
  kind: 'shift',
  name: 'shift on a seam',
  said: ({ string }) => `by a shift on string ${string}`,
  goodFor: 'leaving a box in the middle of a line, on a note that both positions hold',
  complete: true,
  options: {
    string: stringOption('The string to shift on'),
    finger: {
      type: 'choice',
      optional: true,
      label: 'The finger to shift on',
      values: FINGERS.map((name, id) => ({ id, name })),
    },
  },
  usual: ({ neck }) => ({ string: Math.max(1, Math.ceil(neck.open.length / 2)), finger: 0 }),
  up: (climbing, { string, finger = 0 }) => {
    const { neck, hand, front } = climbing;
    for (const upper of aboveFront(climbing))
      for (let to = front.spots.length - 1; to >= 0; to--) {
        const note = front.spots[to]!;
        if (note.string !== string) continue;
        const at = upper.spots.findIndex((s) => s.string === string && s.fret === note.fret);
        if (at < 0) continue;
        const way = joined(front, to, upper, at + 1);
        if (!finger) return ok(way);
        if (note.fret > 0 && frettedGrips(neck, note.fret, hand).some((g) => g.finger === finger))
          return ok(way.map((s, i) => (i === to ? { ...s, by: finger } : s)));
        return refuse(
          'climb.option',
          `Your ${FINGERS[finger]} finger cannot take fret ${note.fret} of string ${string}: choose another finger or string.`,
        );
      }
    return refuse(
      'climb.room',
      `No position above shares a note with this one on string ${string}: choose another string, or a lower position.`,
    );
  },
});

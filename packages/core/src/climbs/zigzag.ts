import { placeId } from '../place.ts';
import { ok, refuse } from '../result.ts';
import { type Route } from '../run/run.ts';
import { defineClimb } from './climb.ts';

/** Zigzag: up in one position and down in the next, from the position in front along the neck. */
export const zigzag = defineClimb<{ readonly through: number }>({
  kind: 'zigzag',
  name: 'zigzag',
  said: ({ through }) => `in a zigzag through ${through} positions`,
  goodFor: 'joining all positions at both ends, where most players know the shapes least',
  complete: false,
  options: { through: { type: 'whole', min: 2, max: 24, label: 'Positions to go through' } },
  usual: ({ positions, front }) => ({ through: Math.max(2, Math.min(24, positions.length - front.index)) }),
  up: ({ positions, front }, { through }) => {
    const all = positions.slice(front.index, front.index + through);
    if (all.length < through)
      return refuse(
        'climb.room',
        `From here up the neck has ${all.length} positions: go through fewer, or begin lower.`,
      );
    const notes = all.flatMap((p, i) => (i % 2 ? [...p.spots].reverse() : p.spots));
    // Where one position ends on the note on which the next one begins, it is struck once.
    return ok(notes.filter((s, i): boolean => i === 0 || placeId(s) !== placeId(notes[i - 1]!)) as Route);
  },
});

import { keySaid, spotSaid } from '../said.ts';
import { type CardKind, judgeTicks } from './question.ts';
import { around } from './shared.ts';

/** Where the next position up the neck begins. */
export const nextBegins: CardKind = {
  kind: 'next-begins',
  name: 'where the next one begins',
  goodFor: 'To climb the ladder without looking for its next rung.',
  asks: ({ positions, position }) => (positions[position.index + 1] ? [''] : []),
  ask: (ground) => {
    const { positions, position, names, key } = ground;
    const next = positions[position.index + 1];
    const lowest = next?.spots[0];
    if (!next || !lowest) return null;
    return {
      says: `${keySaid(key)}: ${names[position.index]!} begins at ${spotSaid(position.spots[0]!)}. Tick the lowest note of the next one up, ${names[next.index]!}.`,
      given: [position.spots[0]!],
      frets: around(ground, position, next),
      right: { by: 'ticks', places: [lowest], one: true },
      look: [lowest],
      told: `It begins at ${spotSaid(lowest)}.`,
    };
  },
  judge: judgeTicks,
};

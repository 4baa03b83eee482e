import { sharedSpots } from '../ladder/index.ts';
import { keySaid } from '../said.ts';
import { type CardKind, judgeTicks } from './question.ts';
import { around, inOrder } from './shared.ts';

/** The seam of a position with the next one up the neck. */
export const seam: CardKind = {
  kind: 'seam',
  name: 'the seam with the next one',
  goodFor: 'To go from one position into the next without a gap.',
  asks: ({ positions, position }) => {
    const next = positions[position.index + 1];
    return next && sharedSpots(position, next).length ? [''] : [];
  },
  ask: (ground) => {
    const { positions, position, names, key } = ground;
    const next = positions[position.index + 1];
    const places = next ? inOrder(ground, sharedSpots(position, next)) : [];
    if (!next || !places.length) return null;
    return {
      says: `${keySaid(key)}: tick the spots that ${names[position.index]!} and ${names[next.index]!} share.`,
      given: [position.spots[0]!],
      frets: around(ground, position, next),
      right: { by: 'ticks', places },
      look: places,
      told: 'These lie in both.',
    };
  },
  judge: judgeTicks,
};

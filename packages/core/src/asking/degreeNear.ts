import { keySaid } from '../said.ts';
import { type CardKind, judgeTicks } from './question.ts';
import { around, inOrder, numberOf } from './shared.ts';

/** A degree near the hand: all of it inside the position. */
export const degreeNear: CardKind = {
  kind: 'degree-near',
  name: 'a degree in the position',
  goodFor: 'To reach for a degree without counting up to it.',
  asks: ({ key }) => key.scale.degrees.map((_, i) => String(i)),
  ask: (ground) => {
    const { key, position, names } = ground;
    const name = ground.degrees[numberOf(ground)];
    const places = inOrder(
      ground,
      position.held.filter((it) => it.degree === numberOf(ground)),
    );
    if (name === undefined || !places.length) return null;
    return {
      says: `${keySaid(key)}, ${names[position.index]!}, frets ${position.lowFret} to ${position.highFret}: tick every ${name}.`,
      given: [],
      frets: around(ground, position),
      right: { by: 'ticks', places },
      look: places,
      told: `Every ${name} of it.`,
    };
  },
  judge: judgeTicks,
};

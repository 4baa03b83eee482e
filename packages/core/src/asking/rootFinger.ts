import { keySaid, spotSaid } from '../said.ts';
import { rootsIn } from '../position.ts';
import { placeId } from '../place.ts';
import { type CardKind, judgeChoice } from './question.ts';
import { around, inOrder, numberOf } from './shared.ts';

const FINGERS = [
  'no finger, it is open',
  'the index finger',
  'the middle finger',
  'the ring finger',
  'the little finger',
];

/** Which finger has a root of the position. */
export const rootFinger: CardKind = {
  kind: 'root-finger',
  name: 'the finger on the root',
  goodFor: 'To begin a line from the root with the hand already in place.',
  asks: (ground) => inOrder(ground, rootsIn(ground.position)).map((_, i) => String(i)),
  ask: (ground) => {
    const root = inOrder(ground, rootsIn(ground.position))[numberOf(ground)];
    const finger = root && ground.steps().find(({ spot }) => placeId(spot) === placeId(root))?.finger;
    if (!root || finger === undefined || !FINGERS[finger]) return null;
    return {
      says: `${keySaid(ground.key)}, ${ground.names[ground.position.index]!}: which finger has the root on ${spotSaid(root)}?`,
      given: [root],
      frets: around(ground, ground.position),
      right: {
        by: 'choice',
        id: String(finger),
        choices: FINGERS.map((name, i) => ({ id: String(i), name })),
      },
      look: [root],
      told: `It is ${FINGERS[finger]}.`,
    };
  },
  judge: judgeChoice,
};

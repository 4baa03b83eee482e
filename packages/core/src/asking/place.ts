import { rootsIn } from '../position.ts';
import { keySaid, spotSaid } from '../said.ts';
import { type CardKind, judgeTicks } from './question.ts';
import { around, inOrder } from './shared.ts';

/** Place this position on an empty neck. */
export const place: CardKind = {
  kind: 'place',
  name: 'place the position',
  goodFor: 'To have a shape without looking it up.',
  asks: () => [''],
  ask: (ground) => {
    const { position, key, names } = ground;
    const places = inOrder(ground, position.held);
    const [root] = rootsIn(position);
    const from = root ?? places[0]!;
    return {
      says: `${keySaid(key)}, ${names[position.index]!}: tick all of its spots. ${root ? 'Its lowest root' : 'Its lowest note'} is ${spotSaid(from)}.`,
      given: [from],
      frets: around(ground, position),
      right: { by: 'ticks', places },
      look: position.spots,
      told: 'These are its spots.',
    };
  },
  judge: judgeTicks,
};

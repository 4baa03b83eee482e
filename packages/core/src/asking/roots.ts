import { keySaid } from '../said.ts';
import { type CardKind, judgeTicks } from './question.ts';
import { placesOfDegree, upTo } from './shared.ts';

/** All roots of a key. */
export const roots: CardKind = {
  kind: 'roots',
  name: 'the roots of the key',
  goodFor: 'To find home from anywhere on the neck.',
  asks: () => [''],
  ask: (ground) => {
    const most = upTo(ground);
    const places = placesOfDegree(ground, 0);
    return {
      says: `${keySaid(ground.key)}: tick every ${ground.notes[0]!} from the open strings up to fret ${most}.`,
      given: [],
      frets: [0, most],
      right: { by: 'ticks', places },
      look: places,
      told: `Every ${ground.notes[0]!} up to fret ${most}.`,
    };
  },
  judge: judgeTicks,
};

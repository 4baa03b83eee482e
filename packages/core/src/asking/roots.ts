import { keySaid } from '../said.ts';
import { type CardKind, judgeTicks } from './question.ts';
import { placesOfDegree } from './shared.ts';

/** Up to this fret roots are asked for: from there on they come again. */
const MOST = 12;

/** All roots of a key. */
export const roots: CardKind = {
  kind: 'roots',
  name: 'the roots of the key',
  goodFor: 'To find home from anywhere on the neck.',
  asks: () => [''],
  ask: (ground) => {
    const most = Math.min(MOST, ground.neck.frets);
    const places = placesOfDegree(ground, 0, most);
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

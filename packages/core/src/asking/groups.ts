import { keySaid } from '../said.ts';
import { fingersSaid, stringVisits } from '../run/signature.ts';
import { type CardKind, judgeChoice } from './question.ts';
import { around, numberOf } from './shared.ts';
import { type Ground } from './card.ts';

/** The fingers of each string, in the order of play. */
function groupsIn(ground: Omit<Ground, 'of'>) {
  const steps = ground.steps();
  return stringVisits(steps.map(({ spot }) => spot)).map((visit) => ({
    spots: visit.map((i) => steps[i]!.spot),
    fingers: fingersSaid(steps, visit),
  }));
}
/** Groups that are chosen from beside those of the position (common practice, no source). */
const OTHERS = ['1 2 4', '1 3 4', '1 2 3', '1 4', '1 3'];

/** The fingers of a position on one string. `of` is the number of the string's turn. */
export const groups: CardKind = {
  kind: 'groups',
  name: 'the fingers of a string',
  goodFor: 'To feel the few groups of which every shape is made.',
  asks: (ground) => groupsIn(ground).map((_, i) => String(i)),
  ask: (ground) => {
    const all = groupsIn(ground);
    const it = all[numberOf(ground)];
    if (!it) return null;
    const choices = [...new Set([...all.map(({ fingers }) => fingers), ...OTHERS])].sort();
    return {
      says: `${keySaid(ground.key)}, ${ground.names[ground.position.index]!}: which fingers play string ${it.spots[0]!.string}?`,
      given: it.spots,
      frets: around(ground, ground.position),
      right: { by: 'choice', id: it.fingers, choices: choices.map((id) => ({ id, name: id })) },
      look: it.spots,
      told: `They are ${it.fingers}.`,
    };
  },
  judge: judgeChoice,
};

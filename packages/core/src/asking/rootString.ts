import { rootsIn } from '../position.ts';
import { keySaid } from '../said.ts';
import { type CardKind, judgeChoice } from './question.ts';
import { around } from './shared.ts';

/** The strings of a position's roots, as a word. */
const stringsOf = (position: Parameters<typeof rootsIn>[0]): string =>
  [...new Set(rootsIn(position).map(({ string }) => string))].sort((a, b) => b - a).join(' and ');

/** On which strings a position has its roots. */
export const rootString: CardKind = {
  kind: 'root-string',
  name: 'the strings of its roots',
  goodFor: 'To choose the position that has its root where the line begins.',
  asks: ({ position }) => (stringsOf(position) ? [''] : []),
  ask: (ground) => {
    const { position, positions, names, key } = ground;
    const right = stringsOf(position);
    if (!right) return null;
    const all = [...new Set(positions.map(stringsOf).filter((it) => it !== ''))].sort();
    return {
      says: `${keySaid(key)}, ${names[position.index]!}: on which strings are its roots?`,
      given: [],
      frets: around(ground, position),
      right: { by: 'choice', id: right, choices: all.map((id) => ({ id, name: `strings ${id}` })) },
      look: rootsIn(position),
      told: `They are on strings ${right}.`,
    };
  },
  judge: judgeChoice,
};

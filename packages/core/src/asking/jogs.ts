import { keySaid } from '../said.ts';
import { jogsIn } from '../laws.ts';
import { capital, list } from '../words.ts';
import { type Ground } from './card.ts';
import { type CardKind, judgeChoice } from './question.ts';
import { around } from './shared.ts';

const NOWHERE = 'nowhere';
const between = (from: number, to: number): string => `between strings ${from} and ${to}`;
/** Where the shape steps sideways, from its lowest string up. */
const jogsOf = (ground: Omit<Ground, 'of'>): string =>
  list(jogsIn(ground.neck, ground.position).map(({ from, to }) => between(from, to))) || NOWHERE;

/** Where a position steps sideways on its way up the strings. */
export const jogs: CardKind = {
  kind: 'jogs',
  name: 'where the shape jogs',
  goodFor: 'To keep a shape where it crosses strings that are no fourth apart.',
  asks: () => [''],
  ask: (ground) => {
    const { neck, position, names } = ground;
    const strings = neck.rising.filter((string) => position.groups.some((it) => it.string === string));
    if (strings.length < 2) return null;
    const right = jogsOf(ground);
    const each = strings.slice(1).map((to, i) => between(strings[i]!, to));
    const choices = [...new Set([...each, right, NOWHERE])];
    return {
      says: `${keySaid(ground.key)}, ${names[position.index]!}, from its lowest string up: where does the shape step sideways?`,
      given: [],
      frets: around(ground, position),
      right: { by: 'choice', id: right, choices: choices.map((id) => ({ id, name: id })) },
      look: position.spots,
      told: `${capital(right)}.`,
    };
  },
  judge: judgeChoice,
};

import { keySaid, spotSaid } from '../said.ts';
import { eachSpot, spotAsked } from './noteHere.ts';
import { type CardKind, judgeChoice } from './question.ts';
import { around } from './shared.ts';

/** The degree of this spot in the key. */
export const degreeHere: CardKind = {
  kind: 'degree-here',
  name: 'the degree of a spot',
  goodFor: 'To hear where a note wants to go.',
  asks: eachSpot,
  ask: (ground) => {
    const spot = spotAsked(ground);
    const { degrees } = ground;
    const name = spot && degrees[spot.degree];
    if (!spot || !name) return null;
    return {
      says: `Which degree of ${keySaid(ground.key)} is ${spotSaid(spot)}?`,
      given: [spot],
      frets: around(ground, ground.position),
      right: { by: 'choice', id: name, choices: degrees.map((it) => ({ id: it, name: it })) },
      look: [spot],
      told: `It is degree ${name}.`,
    };
  },
  judge: judgeChoice,
};

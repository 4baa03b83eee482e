import { spotSaid } from '../said.ts';
import { type Ground } from './card.ts';
import { type CardKind, judgeChoice } from './question.ts';
import { around, inOrder, numberOf } from './shared.ts';

/** The spot of the position that is asked about, by its number from the lowest string up. */
export const spotAsked = (ground: Ground) => inOrder(ground, ground.position.held)[numberOf(ground)];
/** A number for each spot of the position. */
export const eachSpot = (ground: Omit<Ground, 'of'>): readonly string[] =>
  inOrder(ground, ground.position.held).map((_, i) => String(i));

/** The note on this spot. */
export const noteHere: CardKind = {
  kind: 'note-here',
  name: 'the name of a note',
  goodFor: 'To call the notes of a shape by name.',
  asks: eachSpot,
  ask: (ground) => {
    const spot = spotAsked(ground);
    const name = spot && ground.notes[spot.degree];
    if (!spot || !name) return null;
    return {
      says: `Which note is ${spotSaid(spot)}?`,
      given: [spot],
      frets: around(ground, ground.position),
      right: { by: 'choice', id: name, choices: ground.notes.map((it) => ({ id: it, name: it })) },
      look: [spot],
      told: `It is ${name}.`,
    };
  },
  judge: judgeChoice,
};

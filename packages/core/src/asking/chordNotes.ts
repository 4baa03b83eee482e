import { mod } from '../arithmetic.ts';
import { keySaid } from '../said.ts';
import { type CardKind, judgeTicks } from './question.ts';
import { around, inOrder, numberOf } from './shared.ts';

/** The notes of the chord on a degree of the scale, inside the position: every other degree, three of them. `of` is the degree. */
export const chordNotes: CardKind = {
  kind: 'chord-notes',
  name: 'the notes of a chord',
  goodFor: 'To land on the chord that sounds.',
  asks: ({ key }) => (key.scale.degrees.length === 7 ? key.scale.degrees.map((_, i) => String(i)) : []),
  ask: (ground) => {
    const { key, position, names } = ground;
    const many = key.scale.degrees.length;
    const root = numberOf(ground);
    if (many !== 7 || !key.scale.degrees[root]) return null;
    const tones = [0, 2, 4].map((third) => mod(root + third, many));
    const places = inOrder(
      ground,
      position.held.filter((it) => tones.includes(it.degree)),
    );
    const name = (degree: number): string => `${ground.notes[degree]!} (${ground.degrees[degree]!})`;
    return {
      says: `${keySaid(key)}, ${names[position.index]!}: tick the notes of its chord on ${name(root)} inside the position.`,
      given: [],
      frets: around(ground, position),
      right: { by: 'ticks', places },
      look: places,
      told: `Its notes are ${tones.map(name).join(', ')}.`,
    };
  },
  judge: judgeTicks,
};

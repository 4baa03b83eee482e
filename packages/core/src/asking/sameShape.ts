import { mod } from '../arithmetic.ts';
import { note, noteName, pitchClass, pretty } from '../note.ts';
import { type Place } from '../place.ts';
import { chooseRoot } from '../root.ts';
import { keySaid } from '../said.ts';
import { type Ground } from './card.ts';
import { type CardKind, judgeTicks } from './question.ts';
import { inOrder } from './shared.ts';

/** Other keys, the nearest first: around the circle of fifths. */
const FIFTHS = [7, 5, 2, 10, 9, 3, 4, 8, 11, 1, 6];

/** How far along the neck the shape moves to another root: the shorter way on which all of it lies on frets; null where there is none. */
function shiftTo({ neck, key, position }: Omit<Ground, 'of'>, root: string): number | null {
  const up = mod(pitchClass(note(root)) - pitchClass(key.root), 12);
  const frets = position.held.map(({ fret }) => fret);
  // An open string is no fret that a finger could move.
  const fits = (by: number): boolean => frets.every((f) => f > 0 && f + by > 0 && f + by <= neck.frets);
  return [up, up - 12].sort((a, b) => Math.abs(a) - Math.abs(b)).find(fits) ?? null;
}

/** The same shape in another key. */
export const sameShape: CardKind = {
  kind: 'same-shape',
  name: 'the same shape in another key',
  goodFor: 'To play in any key what the hand knows in one.',
  asks: (ground) =>
    FIFTHS.map((by) =>
      noteName(chooseRoot(mod(pitchClass(ground.key.root) + by, 12), ground.key.scale).root),
    ).filter((root) => shiftTo(ground, root) !== null),
  ask: (ground) => {
    const { position, key, names, of } = ground;
    const by = shiftTo(ground, of);
    if (by === null) return null;
    const moved = ({ string, fret }: Place): Place => ({ string, fret: fret + by });
    const places = inOrder(ground, position.held.map(moved));
    const frets = [...position.held, ...places].map(({ fret }) => fret);
    return {
      says: `This is ${keySaid(key)}, ${names[position.index]!}. Tick the same shape in ${pretty(of)}, ${by > 0 ? 'further up' : 'further down'} the neck.`,
      given: inOrder(ground, position.held).map(({ string, fret }): Place => ({ string, fret })),
      frets: [Math.max(0, Math.min(...frets) - 1), Math.min(ground.neck.frets, Math.max(...frets) + 1)],
      right: { by: 'ticks', places },
      look: position.spots.map(moved),
      told: `It lies ${Math.abs(by)} ${Math.abs(by) === 1 ? 'fret' : 'frets'} ${by > 0 ? 'higher' : 'lower'}.`,
    };
  },
  judge: judgeTicks,
};

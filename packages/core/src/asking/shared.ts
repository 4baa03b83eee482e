import { degreeIndex } from '../scale.ts';
import { pitchAt } from '../neck.ts';
import { type Place, placeId } from '../place.ts';
import { type Position } from '../position.ts';
import { type Ground } from './card.ts';

/** Each place once, from the lowest string up, frets rising. */
export function inOrder<T extends Place>({ neck }: Pick<Ground, 'neck'>, places: readonly T[]): readonly T[] {
  const at = ({ string, fret }: Place): number => neck.rising.indexOf(string) * 100 + fret;
  return [...new Map(places.map((it) => [placeId(it), it])).values()].sort((a, b) => at(a) - at(b));
}
/** The frets of some positions, one more on each side. */
export const around = (
  { neck }: Pick<Ground, 'neck'>,
  ...positions: readonly Position[]
): [number, number] => [
  Math.max(0, Math.min(...positions.map((p) => p.lowFret)) - 1),
  Math.min(neck.frets, Math.max(...positions.map((p) => p.highFret)) + 1),
];
/** Every place up to a fret whose note is one of some degrees of the key. */
export function placesOfDegree({ neck, key }: Ground, degree: number, most: number): readonly Place[] {
  return neck.rising.flatMap((string) =>
    Array.from({ length: Math.min(most, neck.frets) + 1 }, (_, fret): Place => ({ string, fret })).filter(
      ({ fret }) => degreeIndex(key, pitchAt(neck, string, fret)) === degree,
    ),
  );
}
/** What a card asks of, as a whole number. */
export const numberOf = ({ of }: Ground): number => Number(of);

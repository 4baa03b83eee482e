import { spotsOf } from '../neck.ts';
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
/** Up to this fret notes are asked for over the whole neck: from there on they come again. */
export const upTo = ({ neck }: Pick<Ground, 'neck'>): number => Math.min(12, neck.frets);
/** Every place up to there whose note is a degree of the key. */
export const placesOfDegree = (ground: Ground, degree: number): readonly Place[] =>
  spotsOf(ground.neck, ground.key)
    .filter((it) => it.degree === degree && it.fret <= upTo(ground))
    .map(({ string, fret }) => ({ string, fret }));
/** What a card asks of, as a whole number. */
export const numberOf = ({ of }: Ground): number => Number(of);

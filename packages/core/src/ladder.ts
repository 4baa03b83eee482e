import { type Place, placeId } from './place.ts';
import { type Position } from './position.ts';

/** The spots that two neighbouring positions share. */
export interface Seam {
  /** Index of the lower position; the other is the next one. */
  readonly lower: number;
  readonly spots: readonly Place[];
}

/** The spots that two positions share, each once. */
export function sharedSpots(a: Position, b: Position): readonly Place[] {
  const held = new Set(b.spots.map(placeId));
  const shared = a.spots.filter((s) => held.has(placeId(s)));
  return [
    ...new Map(shared.map(({ string, fret }) => [placeId({ string, fret }), { string, fret }])).values(),
  ];
}

/** The seams of a ladder: what each position shares with the next one along the neck. */
export function seams(positions: readonly Position[]): readonly Seam[] {
  return positions.slice(1).map((upper, lower) => ({ lower, spots: sharedSpots(positions[lower]!, upper) }));
}

import { type Neck } from '../neck.ts';
import { type PlacedSpot } from '../placement.ts';
import { type Place, placeId } from '../place.ts';
import { type Position } from '../position.ts';

/** The spots that two neighbouring positions share. */
export interface Seam {
  /** Index of the lower position; the other is the next one. */
  readonly lower: number;
  readonly spots: readonly Place[];
}

/** The spots of a position, each once: a relay plays some of them in two legs. */
const spotsOnce = ({ held }: Position): readonly PlacedSpot[] => [
  ...new Map(held.map((s) => [placeId(s), s])).values(),
];

/**
 * The spots that two positions share, each once.
 *
 * @example sharedSpots(boxes[0], boxes[1]).length // 6
 */
export function sharedSpots(a: Position, b: Position): readonly PlacedSpot[] {
  const held = new Set(b.held.map(placeId));
  return spotsOnce(a).filter((s) => held.has(placeId(s)));
}

/**
 * The seams of a ladder: what each position shares with the next one along the neck.
 *
 * @example seams(boxes).length // 8
 */
export function seams(positions: readonly Position[]): readonly Seam[] {
  return positions.slice(1).map((upper, lower) => ({ lower, spots: sharedSpots(positions[lower]!, upper) }));
}

/** Two positions beside each other on one string; frets rising. */
export interface SeamString {
  readonly string: number;
  readonly shared: readonly PlacedSpot[];
  /** In the lower position alone, and in the upper one alone. */
  readonly lower: readonly PlacedSpot[];
  readonly upper: readonly PlacedSpot[];
}

/**
 * How two positions interlock: string by string, from the lowest-pitched, the spots of both and of each alone. The lower
 * position is the first one given; any two may be compared. Strings that neither uses are left out.
 *
 * @example seamByString(neck, boxes[1], boxes[2])[0].shared.map((s) => s.fret) // [5]
 */
export function seamByString(neck: Neck, lower: Position, upper: Position): readonly SeamString[] {
  const on = (position: Position, string: number): readonly PlacedSpot[] =>
    spotsOnce(position)
      .filter((s) => s.string === string)
      .sort((a, b) => a.fret - b.fret);
  return neck.rising.flatMap((string) => {
    const [a, b] = [on(lower, string), on(upper, string)];
    const [inA, inB] = [new Set(a.map((s) => s.fret)), new Set(b.map((s) => s.fret))];
    return a.length || b.length
      ? [
          {
            string,
            shared: a.filter((s) => inB.has(s.fret)),
            lower: a.filter((s) => !inB.has(s.fret)),
            upper: b.filter((s) => !inA.has(s.fret)),
          },
        ]
      : [];
  });
}

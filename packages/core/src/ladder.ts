import { type Position } from './position.ts';

/** The spots that two neighbouring positions share. */
export interface Seam {
  /** Index of the lower position; the other is the next one. */
  readonly lower: number;
  readonly spots: readonly { readonly string: number; readonly fret: number }[];
}

/** The seams of a ladder: what each position shares with the next one along the neck. */
export function seams(positions: readonly Position[]): readonly Seam[] {
  return positions.slice(1).map((upper, lower) => {
    const held = new Set(upper.spots.map((s) => s.string * 100 + s.fret));
    const shared = positions[lower]!.spots.filter((s) => held.has(s.string * 100 + s.fret));
    const distinct = new Map(shared.map(({ string, fret }) => [string * 100 + fret, { string, fret }]));
    return { lower, spots: [...distinct.values()] };
  });
}

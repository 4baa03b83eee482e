import { type Spot } from './place.ts';

export interface PlacedSpot extends Spot {
  /** Leg of a relay, from 0. */
  readonly leg?: number;
  /** Half steps that an alteration moved the note by. */
  readonly altered?: -1 | 1;
  /** True for a note outside one finger per fret. */
  readonly stretch?: true;
}

/** What a layout yields before it is measured: the spots in playing order and what only this layout knows. */
export interface Placement {
  readonly spots: readonly PlacedSpot[];
  /** Where a pitch lies a second time in the shape; a run passes over it. */
  readonly twins?: readonly PlacedSpot[];
  /** In position: the fret of the index finger. */
  readonly indexFret?: number;
  readonly stretches?: number;
  readonly worthLearning?: boolean;
  readonly region?: 'low' | 'high' | 'across';
  /** Regions: the best place of its octave in this region; otherwise a unison elsewhere. */
  readonly main?: boolean;
}

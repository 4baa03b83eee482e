import { type Refusal, type Result } from '../result.ts';
import { type Spot } from '../neck.ts';

/** Which finger takes a note that one finger per fret misses: the index one fret back, or the little one forward. */
export type StretchSchool = 'index' | 'little';

/** A layout with its options: a rule that spreads a scale over the strings. */
export type LayoutSpec =
  /** `counts`: notes on each string from the lowest; the last one goes on for the strings above. 1 to 6 each. */
  | { readonly kind: 'count'; readonly counts: readonly number[] }
  /** `reach` in frets, 2 to 6. */
  | { readonly kind: 'reach'; readonly reach: number }
  | { readonly kind: 'diagonal' }
  /** `every` lists all fingerable frets, not only those worth learning. */
  | { readonly kind: 'inPosition'; readonly school: StretchSchool; readonly every: boolean }
  | { readonly kind: 'single'; readonly string: number }
  /** `lower`: string number of the lower string; the other is its neighbour in rising order of pitch. */
  | { readonly kind: 'pair'; readonly lower: number }
  /** `notes` per leg, a multiple of `perString`. */
  | { readonly kind: 'relay'; readonly notes: number; readonly perString: number }
  /** `perString`: notes on each string after two neighbours are united; `from`: 0 begins on the lowest string, 1 on the next. */
  | {
      readonly kind: 'skip';
      readonly perString: number;
      readonly from: 0 | 1;
      readonly altered: readonly Alteration[];
    }
  /** `boundary`: first fret of the high region, 3 to 15. */
  | { readonly kind: 'regions'; readonly boundary: number }
  | { readonly kind: 'fourths' };

export type LayoutKind = LayoutSpec['kind'];

/** One degree (by index) moved by a half step. */
export interface Alteration {
  readonly degree: number;
  readonly by: -1 | 1;
}

export interface PlacedSpot extends Spot {
  /** Leg of a relay, from 0. */
  readonly leg?: number;
  /** True for a note moved off the scale by an alteration. */
  readonly altered?: true;
  /** True for a note outside one finger per fret. */
  readonly stretch?: true;
}

/** What a layout yields before it is measured: the spots in playing order and what only this layout knows. */
export interface Placement {
  readonly spots: readonly PlacedSpot[];
  /** In position: the fret of the index finger. */
  readonly indexFret?: number;
  readonly stretches?: number;
  readonly worthLearning?: boolean;
  readonly region?: 'low' | 'high' | 'across';
  /** Regions: the best place of its octave in this region; otherwise a unison elsewhere. */
  readonly main?: boolean;
}

/** Codes: `layout.scale` (the rule does not suit the scale), `layout.neck` (no room on this neck), `layout.option`. */
export type LayoutReason = Refusal;
export type Placements = Result<readonly Placement[], LayoutReason>;

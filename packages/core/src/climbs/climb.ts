import { type KindOf, type Spec } from '../kinds/spec.ts';
import { type Neck } from '../neck.ts';
import { type Place } from '../place.ts';
import { type Position } from '../position.ts';
import { type Result } from '../result.ts';
import { type HandOptions } from '../run/grips.ts';
import { type Route } from '../run/run.ts';
import { type Key } from '../scale.ts';

/** What a climb sets out from. */
export interface Climbing {
  readonly neck: Neck;
  readonly key: Key;
  /** Whose fingers have to take the notes. */
  readonly hand: HandOptions;
  /** Of the layout, in neck order. */
  readonly positions: readonly Position[];
  readonly front: Position;
  /** Where the root was put. */
  readonly root: Place;
}

/** Codes: `climb.room` (there is no way on this neck), `climb.option`, and those of a layout that it is made from. */
export type Climbed = Result<Route>;

/** A way along the neck, with everything that the rest of the application needs to know of it. */
export interface ClimbOf<O> extends KindOf<O> {
  /** How it goes, after “climb”: "by a slide along string 3". */
  readonly said: (options: O) => string;
  /** What it is good for. */
  readonly goodFor: string;
  /** True where it plays every scale pitch between its lowest and highest note exactly once, rising. */
  readonly complete: boolean;
  readonly usual: (climbing: Climbing) => O;
  /** The way up. The way down is the same backwards. */
  readonly up: (climbing: Climbing, options: O) => Climbed;
}

/** A climb with its options, as a chart keeps it. */
export type ClimbSpec = Spec;
/** A climb whose options are known by its own file alone. */
export type Climb = ClimbOf<ClimbSpec>;
/**
 * Takes a climb's own options out of the sight of everybody else.
 *
 * @example defineClimb(CLIMBS.of('slide')).kind // "slide"
 */
export const defineClimb = <O>(climb: ClimbOf<O>): Climb => climb as unknown as Climb;

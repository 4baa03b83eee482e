import { type Neck } from '../neck.ts';
import { type Placement } from '../placement.ts';
import { type Position } from '../position.ts';
import { type Refusal, type Result } from '../result.ts';
import { type Key, type Scale } from '../scale.ts';
import { type KindOf, type Spec } from '../kinds/spec.ts';

/** Codes: `layout.scale` (the rule does not suit the scale), `layout.neck` (no room on this neck), `layout.option`. */
export type LayoutReason = Refusal;
export type Placements = Result<readonly Placement[], LayoutReason>;

/** A layout with its options, as a chart keeps it. */
export type LayoutSpec = Spec;

/** What a layout's usual options depend on; `string` is where the root lies. */
export interface Circumstances {
  readonly scale: Scale;
  readonly string: number;
  readonly strings: number;
}

/** How the groups of a layout follow each other where all strings are a fourth apart. */
export interface Repeats {
  /** Start degrees of the groups until they repeat, one a string. */
  readonly starts: readonly number[];
  /** Notes that stay on a string, by start degree. */
  readonly takes: readonly number[];
}

/** A rule that spreads a scale over the strings, with everything that the rest of the application needs to know of it. */
export interface LayoutOf<O> extends KindOf<O> {
  readonly rule: string;
  /** True where a position has every scale pitch between its lowest and highest note exactly once. */
  readonly complete: boolean;
  /** The placements on a neck; the options are within their bounds. */
  readonly place: (neck: Neck, key: Key, options: O) => Placements;
  /** The options that suit a scale. */
  readonly usual: (circumstances: Circumstances) => O;
  /** True where the options follow the size of the scale. */
  readonly bySize?: true;
  /** The options kept within an instrument of so many strings. */
  readonly fit?: (options: O, strings: number) => O;
  /** The options after the root was put on another string. */
  readonly atRoot?: (options: O, string: number) => O;
  /** The layout as a player says it: "three notes per string". */
  readonly said: (options: O) => string;
  /** The law of its repetition, null where a scale gives it none. */
  readonly repeats?: (scale: Scale, options: O) => Repeats | null;
  /** What a position is called whatever the school, where the schools' names say nothing; `neck order` excepted. */
  readonly title?: (position: Position, options: O) => string | null;
}

/** A layout whose options are known by its own file alone. */
export type Layout = LayoutOf<LayoutSpec>;

/**
 * Takes a layout's own options out of the sight of everybody else.
 *
 * @example defineLayout(LAYOUTS.of('count')).kind // "count"
 */
export const defineLayout = <O>(layout: LayoutOf<O>): Layout => layout as unknown as Layout;

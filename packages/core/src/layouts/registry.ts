import { usualOf } from '../kinds/spec.ts';
import { type Neck } from '../neck.ts';
import { type Position, positionsOf } from '../position.ts';
import { ok, type Result } from '../result.ts';
import { COMFORTABLE_SPAN_MM } from '../run/costs.ts';
import { type Key } from '../scale.ts';
import { byCount } from './byCount.ts';
import { byReach } from './byReach.ts';
import { diagonal } from './diagonal.ts';
import { fourths } from './fourths.ts';
import { inPosition } from './inPosition.ts';
import { type Layout, type LayoutReason, type LayoutSpec, type Placements } from './layout.ts';
import { registryOf } from '../kinds/registry.ts';
import { pair } from './pair.ts';
import { regions } from './regions.ts';
import { relay } from './relay.ts';
import { single } from './single.ts';
import { skip } from './skip.ts';

/** Every layout. */
export const LAYOUTS = registryOf<Layout>('layout', [
  byCount,
  byReach,
  inPosition,
  diagonal,
  single,
  pair,
  relay,
  skip,
  regions,
  fourths,
]);

/**
 * A layout with its options kept within an instrument of so many strings.
 *
 * @example fittedTo({ kind: 'count', counts: [3] }, 4) // {"kind":"count","counts":[3]}
 */
export function fittedTo(spec: LayoutSpec, strings: number): LayoutSpec {
  const fit = LAYOUTS.for(spec).fit?.(spec, strings);
  return fit ? { ...fit, kind: spec.kind } : spec;
}

/**
 * A layout as a player says it: "three notes per string", "reach 3".
 *
 * @example layoutName({ kind: 'count', counts: [3] }) // "three notes per string"
 */
export const layoutName = (spec: LayoutSpec): string => LAYOUTS.for(spec).said(spec);

/**
 * The placements of a layout, before they are measured; code `layout.option` where its options are out of bounds.
 *
 * @example placements(neck, A, { kind: 'count', counts: [2] }).value?.length // 9
 */
export function placements(neck: Neck, key: Key, spec: LayoutSpec): Placements {
  const layout = LAYOUTS.checked(spec);
  return layout.ok ? layout.value.place(neck, key, spec) : layout;
}

/**
 * All positions of a layout in order along the neck, or the reason why it does not fit.
 *
 * @example layOut(neck, A, { kind: 'count', counts: [2] }).value?.length // 9
 */
export function layOut(neck: Neck, key: Key, spec: LayoutSpec): Result<readonly Position[], LayoutReason> {
  const placed = placements(neck, key, spec);
  return placed.ok ? ok(positionsOf(neck, placed.value)) : placed;
}

export interface Suited {
  readonly layout: Layout;
  /** Lower suits better; infinite where the layout does not fit. */
  readonly strain: number;
  readonly why: string;
}

/**
 * Ranks the layouts by how well they suit a scale on a neck. Strain is the mean over the positions' strings of the
 * frets of reach beyond one finger per fret, where the reach is wider than the player's span in mm, plus the unevenness
 * of the groups (their sizes' spread).
 *
 * @example rankLayouts(neck, A)[0].layout.kind // "count"
 */
export function rankLayouts(neck: Neck, key: Key, spanMm = COMFORTABLE_SPAN_MM): readonly Suited[] {
  const circumstances = { scale: key.scale, string: neck.rising[0]!, strings: neck.rising.length };
  const suited = LAYOUTS.all().map((layout): Suited => {
    const result = layOut(neck, key, usualOf(layout, circumstances));
    if (!result.ok) return { layout, strain: Infinity, why: result.error.message };
    const groups = result.value.flatMap((p) => p.groups);
    const over =
      groups.reduce((sum, g) => sum + (g.reachMm > spanMm ? Math.max(0, g.reach - 3) : 0), 0) / groups.length;
    const sizes = groups.map((g) => g.frets.length);
    const spread = Math.max(...sizes) - Math.min(...sizes);
    return {
      layout,
      strain: over + 0.25 * spread,
      why: `${over.toFixed(1)} frets of stretch on a string beyond your span, ${spread ? `groups of ${Math.min(...sizes)} to ${Math.max(...sizes)} notes` : `${sizes[0]} notes on each`}.`,
    };
  });
  return suited.sort((a, b) => a.strain - b.strain);
}

import { inPosition } from './layouts/inPosition.ts';
import { byCount, byReach, diagonal, relay, singleString, stringPair } from './layouts/runs.ts';
import { type LayoutKind, type LayoutReason, type LayoutSpec, type Placements } from './layouts/spec.ts';
import { fourthsPattern, regions, stringSkip } from './layouts/wide.ts';
import { type Neck } from './neck.ts';
import { measure, type Position } from './position.ts';
import { list, ok, type Result } from './result.ts';
import { type Key, type Scale } from './scale.ts';

function placements(neck: Neck, key: Key, spec: LayoutSpec): Placements {
  switch (spec.kind) {
    case 'count':
      return byCount(neck, key, spec.counts);
    case 'reach':
      return byReach(neck, key, spec.reach);
    case 'diagonal':
      return diagonal(neck, key);
    case 'inPosition':
      return inPosition(neck, key, spec.school, spec.every);
    case 'single':
      return singleString(neck, key, spec.string);
    case 'pair':
      return stringPair(neck, key, spec.lower);
    case 'relay':
      return relay(neck, key, spec.notes, spec.perString);
    case 'skip':
      return stringSkip(neck, key, spec.perString, spec.from, spec.altered);
    case 'regions':
      return regions(neck, key, spec.boundary);
    case 'fourths':
      return fourthsPattern(neck, key);
  }
}

/** All positions of a layout along the neck in order, or the reason why it does not fit. */
export function layOut(neck: Neck, key: Key, spec: LayoutSpec): Result<readonly Position[], LayoutReason> {
  const placed = placements(neck, key, spec);
  return placed.ok ? ok(placed.value.map((p, i) => measure(neck, p, i))) : placed;
}

export interface LayoutInfo {
  readonly kind: LayoutKind;
  readonly name: string;
  readonly rule: string;
  /** True where a position has every scale pitch between its lowest and highest note exactly once. */
  readonly complete: boolean;
}

/** The layouts, in the order in which they are offered. */
export const LAYOUTS: readonly LayoutInfo[] = [
  {
    kind: 'count',
    name: 'notes per string',
    rule: 'A fixed number of notes stays on each string.',
    complete: true,
  },
  {
    kind: 'reach',
    name: 'by reach',
    rule: 'As many notes stay on a string as fit the reach.',
    complete: true,
  },
  {
    kind: 'inPosition',
    name: 'in position',
    rule: 'Every note of the scale under one finger per fret.',
    complete: true,
  },
  {
    kind: 'diagonal',
    name: 'diagonal',
    rule: 'Two and three notes in turn, climbing the neck by an octave every two strings.',
    complete: true,
  },
  { kind: 'single', name: 'single string', rule: 'One octave on one string.', complete: true },
  { kind: 'pair', name: 'string pair', rule: 'Half of the octave on each of two strings.', complete: true },
  {
    kind: 'relay',
    name: 'relay',
    rule: 'The first notes of one position, then one string back and one position up.',
    complete: false,
  },
  {
    kind: 'skip',
    name: 'string skip',
    rule: 'Two neighbouring positions united, on every other string.',
    complete: false,
  },
  {
    kind: 'regions',
    name: 'regions',
    rule: 'The same octave low on the neck, high on it, and in unison elsewhere.',
    complete: true,
  },
  {
    kind: 'fourths',
    name: 'fourths pattern',
    rule: 'A window of five frets on the endless pattern of fourths, then the jogs.',
    complete: true,
  },
];

export const layoutInfo = (kind: LayoutKind): LayoutInfo => LAYOUTS.find((l) => l.kind === kind)!;

/** Notes per string that a scale of this size is usually laid out with. */
export const usualCount = (scale: Scale): number =>
  scale.degrees.length >= 12 ? 4 : scale.degrees.length >= 7 ? 3 : 2;

/** A layout with the options that suit a scale; `string` is where the root lies. */
export function usualSpec(kind: LayoutKind, scale: Scale, string: number, strings: number): LayoutSpec {
  const per = usualCount(scale);
  switch (kind) {
    case 'count':
      return { kind, counts: [per] };
    case 'reach':
      return { kind, reach: scale.degrees.length <= 5 ? 4 : 3 };
    case 'inPosition':
      return { kind, school: 'index', every: false };
    case 'single':
      return { kind, string };
    case 'pair':
      return { kind, lower: Math.max(2, string) };
    case 'relay':
      return { kind, notes: Math.min(4, strings - 1) * per, perString: per };
    case 'skip':
      return { kind, perString: per + 1, from: 1, altered: [] };
    case 'regions':
      return { kind, boundary: 7 };
    case 'diagonal':
    case 'fourths':
      return { kind };
  }
}

/** A layout as a player says it: "three notes per string", "reach 3". */
export function layoutName(spec: LayoutSpec): string {
  const word = (n: number): string => ['no', 'one', 'two', 'three', 'four', 'five', 'six'][n] ?? String(n);
  switch (spec.kind) {
    case 'count':
      return spec.counts.length === 1
        ? `${word(spec.counts[0]!)} note${spec.counts[0] === 1 ? '' : 's'} per string`
        : `${list(spec.counts)} notes on the strings`;
    case 'reach':
      return `reach ${spec.reach}`;
    case 'diagonal':
      return 'on the diagonal';
    case 'inPosition':
      return spec.every ? 'in any position' : 'in position';
    case 'single':
      return `on string ${spec.string} alone`;
    case 'pair':
      return `on a pair of strings from string ${spec.lower}`;
    case 'relay':
      return `in a relay of ${spec.notes} notes`;
    case 'skip':
      return `skipping strings, ${word(spec.perString)} notes each`;
    case 'regions':
      return `in regions cut at fret ${spec.boundary}`;
    case 'fourths':
      return 'on the fourths pattern';
  }
}

export interface Suited {
  readonly kind: LayoutKind;
  /** Lower suits better; infinite where the layout does not fit. */
  readonly strain: number;
  readonly why: string;
}

/**
 * Ranks layouts by how well they suit a scale on a neck. Strain is the mean over the positions' strings of the
 * frets of reach beyond one finger per fret, plus the unevenness of the groups (their sizes' spread).
 */
export function rankLayouts(
  neck: Neck,
  key: Key,
  kinds: readonly LayoutKind[] = LAYOUTS.map((l) => l.kind),
): readonly Suited[] {
  const suited = kinds.map((kind): Suited => {
    const result = layOut(neck, key, usualSpec(kind, key.scale, neck.rising[0]!, neck.rising.length));
    if (!result.ok) return { kind, strain: Infinity, why: result.error.message };
    const groups = result.value.flatMap((p) => p.groups);
    const over = groups.reduce((sum, g) => sum + Math.max(0, g.reach - 3), 0) / groups.length;
    const sizes = groups.map((g) => g.frets.length);
    const spread = Math.max(...sizes) - Math.min(...sizes);
    return {
      kind,
      strain: over + 0.25 * spread,
      why: `${over.toFixed(1)} frets of stretch on a string, ${spread ? `groups of ${Math.min(...sizes)} to ${Math.max(...sizes)} notes` : `${sizes[0]} notes on each`}.`,
    };
  });
  return suited.sort((a, b) => a.strain - b.strain);
}

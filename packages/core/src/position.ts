import { type Neck, spanOn } from './neck.ts';
import { type PlacedSpot, type Placement } from './placement.ts';
import { type Place } from './place.ts';
import { stepName } from './scale.ts';

/** The spots of a position on one string (in a relay: on one string in one leg). */
export interface StringGroup {
  readonly string: number;
  readonly leg: number;
  /** Rising. */
  readonly frets: readonly number[];
  readonly degrees: readonly number[];
  /** Highest minus lowest fret. */
  readonly reach: number;
  readonly reachMm: number;
  /** Steps inside the group: "H W". */
  readonly steps: string;
}

/** A shape placed on the neck. */
export interface Position extends Placement {
  /** Place along the neck, from 0. */
  readonly index: number;
  readonly lowFret: number;
  readonly highFret: number;
  /** Degree index of the first note. */
  readonly start: number;
  /** All that the shape holds: the spots in playing order, then their twins. */
  readonly held: readonly PlacedSpot[];
  /** From the lowest string up; a relay has its legs one after the other. */
  readonly groups: readonly StringGroup[];
  /** Widest reach on one string, in frets. */
  readonly reach: number;
}

function groupsOf(neck: Neck, { held }: Position): readonly StringGroup[] {
  const byGroup = new Map<number, PlacedSpot[]>();
  for (const spot of held) {
    const id = (spot.leg ?? 0) * 100 + neck.rising.indexOf(spot.string);
    const group = byGroup.get(id);
    if (group) group.push(spot);
    else byGroup.set(id, [spot]);
  }
  return [...byGroup.entries()]
    .sort((a, b) => a[0] - b[0])
    .map(([id, group]): StringGroup => {
      const on = group.sort((a, b) => a.fret - b.fret);
      const frets = on.map((s) => s.fret);
      return {
        string: on[0]!.string,
        leg: Math.floor(id / 100),
        frets,
        degrees: on.map((s) => s.degree),
        reach: frets.at(-1)! - frets[0]!,
        reachMm: spanOn(neck, frets[0]!, frets.at(-1)!),
        steps: frets
          .slice(1)
          .map((f, j) => stepName(f - frets[j]!))
          .join(' '),
      };
    });
}

/** A placement with its frets. */
interface Bounded {
  readonly placement: Placement;
  readonly low: number;
  readonly high: number;
}

function bounded(placement: Placement): Bounded {
  let low = Infinity;
  let high = 0;
  for (const { fret } of placement.spots) {
    if (fret < low) low = fret;
    if (fret > high) high = fret;
  }
  return { placement, low, high };
}

/** A placement on its neck; groups and reach are measured when they are first asked for. */
class MeasuredPosition implements Position {
  readonly spots: Position['spots'];
  readonly held: Position['held'];
  readonly lowFret: number;
  readonly highFret: number;
  readonly start: number;
  readonly #neck: Neck;
  #groups: readonly StringGroup[] | null = null;
  constructor(
    neck: Neck,
    readonly index: number,
    { placement, low, high }: Bounded,
  ) {
    Object.assign(this, placement);
    this.#neck = neck;
    this.spots = placement.spots;
    this.held = placement.twins?.length ? [...placement.spots, ...placement.twins] : placement.spots;
    this.lowFret = low;
    this.highFret = high;
    this.start = placement.spots[0]!.degree;
  }
  get groups(): readonly StringGroup[] {
    return (this.#groups ??= groupsOf(this.#neck, this));
  }
  get reach(): number {
    return Math.max(...this.groups.map((g) => g.reach));
  }
}

/**
 * The positions of placements in order along the neck: by the lowest fret, then the highest, then the lowest note.
 *
 * @example positionsOf(neck, [box]).length // 1
 */
export function positionsOf(neck: Neck, placements: readonly Placement[]): readonly Position[] {
  return placements
    .map(bounded)
    .sort(
      (a, b) => a.low - b.low || a.high - b.high || a.placement.spots[0]!.midi - b.placement.spots[0]!.midi,
    )
    .map((b, index) => new MeasuredPosition(neck, index, b));
}

/**
 * Frets string by string from the lowest string: "5 8/5 7/5 7"; strings without a note are left out.
 *
 * @example fretText(box) // "5 8/5 7/5 7/5 7/5 8/5 8"
 */
export const fretText = (position: Position): string =>
  position.groups.map((g) => g.frets.join(' ')).join('/');

/**
 * The shape of a position: string by string its frets, counted from the lowest. It is the same in every key.
 *
 * @example shapeOf(box) // "6:0 3/5:0 2/4:0 2/3:0 2/2:0 3/1:0 3"
 */
export const shapeOf = (position: Position): string =>
  position.groups.map((g) => `${g.string}:${g.frets.map((f) => f - position.lowFret).join(' ')}`).join('/');

/** Where a spot lies in a position. */
export interface Holding {
  readonly position: Position;
  /** 1-based place in the playing order. */
  readonly order: number;
  /** 1-based place among the notes on its string. */
  readonly onString: number;
}

/**
 * The positions that contain a spot, and where in them it lies.
 *
 * @example holding(boxes, 6, 5).map((h) => h.order) // [2,1]
 */
export function holding(positions: readonly Position[], string: number, fret: number): readonly Holding[] {
  return positions.flatMap((position) => {
    const here = position.held.find((s) => s.string === string && s.fret === fret);
    if (!here) return [];
    const isTwin = position.twins?.includes(here);
    const order = position.spots.findIndex((s) => (isTwin ? s.midi === here.midi : s === here));
    const below = position.held.filter((s) => s.string === string && s.leg === here.leg && s.fret < fret);
    return [{ position, order: order + 1, onString: below.length + 1 }];
  });
}

/**
 * The position to show for a spot: one that has it as first note on its string comes first, among those one worth
 * learning or the main one of its region, then the one lying lowest. Null where none holds it.
 *
 * @example positionThrough(boxes, 6, 5)?.lowFret // 5
 */
export function positionThrough(
  positions: readonly Position[],
  string: number,
  fret: number,
): Position | null {
  const rank = (h: Holding): number => (h.onString === 1 ? 0 : 2) + (h.position.main === false ? 1 : 0);
  const held = [...holding(positions, string, fret)];
  return held.sort((a, b) => rank(a) - rank(b))[0]?.position ?? null;
}

/** Names a position in a chart and in an address; it survives whatever leaves the position standing. */
export interface PositionRef {
  /** Degree index of the first note. */
  readonly start: number;
  /** Lowest fret, without alterations. */
  readonly low: number;
  /** Which of several with the same start and lowest fret, from 0. */
  readonly nth: number;
}

/**
 * The lowest fret of a position without its alterations: with them it is the same position.
 *
 * @example unalteredLow(box) // 5
 */
export const unalteredLow = (position: Position): number =>
  Math.min(...position.spots.map((s) => s.fret - (s.altered ?? 0)));

const alike = (p: Position, { start, low }: Omit<PositionRef, 'nth'>): boolean =>
  p.start === start && unalteredLow(p) === low;

/**
 * How a position is named among its like; alterations do not change its name.
 *
 * @example refOf(boxes, box) // {"start":0,"low":5,"nth":0}
 */
export function refOf(positions: readonly Position[], position: Position): PositionRef {
  const { start, index } = position;
  const low = unalteredLow(position);
  const nth = positions.filter((p) => p.index < index && alike(p, { start, low })).length;
  return { start, low, nth };
}

/**
 * The position of a name, or null where it stands no more.
 *
 * @example positionOf(boxes, { start: 0, low: 5, nth: 0 })?.highFret // 8
 */
export const positionOf = (positions: readonly Position[], ref: PositionRef): Position | null =>
  positions.filter((p) => alike(p, ref))[ref.nth] ?? null;

/** The position in front, and why it is: asked for, through the root's place, or the nearest one that holds a root. */
export interface Front {
  readonly position: Position;
  readonly by: 'choice' | 'root' | 'nearest';
}

/**
 * The position to bring forward; null only where there is none at all.
 *
 * @example frontOf(boxes, null, { string: 6, fret: 5 })?.by // "root"
 */
export function frontOf(positions: readonly Position[], ref: PositionRef | null, root: Place): Front | null {
  const chosen = ref && positionOf(positions, ref);
  if (chosen) return { position: chosen, by: 'choice' };
  const through = positionThrough(positions, root.string, root.fret);
  if (through) return { position: through, by: 'root' };
  const far = (p: Position): number => {
    const roots = rootsIn(p).map(
      (s) => Math.abs(s.fret - root.fret) + Math.abs(s.string - root.string) / 100,
    );
    return roots.length ? Math.min(...roots) : 1000 + Math.abs(p.lowFret - root.fret);
  };
  const [nearest] = [...positions].sort((a, b) => far(a) - far(b));
  return nearest ? { position: nearest, by: 'nearest' } : null;
}

/**
 * The notes of a key's degree 1 inside a position.
 *
 * @example rootsIn(box).map((s) => s.string) // [6,4,1]
 */
export const rootsIn = (position: Position): readonly PlacedSpot[] =>
  position.held.filter((s) => s.degree === 0);

/**
 * Step groups from the lowest string: "W+H / W / W"; a dash where a string has one note.
 *
 * @example stepSignature(box) // "W+H / W / W / W / W+H / W+H"
 */
export const stepSignature = (position: Position): string =>
  position.groups.map((g) => g.steps || '–').join(' / ');

/**
 * The positions that hold the most of some pitches, MIDI numbers, each counted once, and how many that are; none where not even half of them lie in
 * one.
 *
 * @example holdingMost(boxes, [45, 48, 50, 52, 55]).held // 5
 */
export function holdingMost(
  positions: readonly Position[],
  midis: readonly number[],
): { readonly positions: readonly Position[]; readonly held: number } {
  const asked = [...new Set(midis)];
  const heldBy = ({ held }: Position): number => {
    const has = new Set(held.map(({ midi }) => midi));
    return asked.filter((midi) => has.has(midi)).length;
  };
  const all = positions.map((position) => ({ position, held: heldBy(position) }));
  const most = Math.max(0, ...all.map(({ held }) => held));
  if (most === 0 || 2 * most < asked.length) return { positions: [], held: 0 };
  return {
    positions: all.flatMap(({ position, held }) => (held === most ? [position] : [])),
    held: most,
  };
}

import { type Neck, spanOn } from './neck.ts';
import { type PlacedSpot, type Placement } from './layouts/spec.ts';
import { stepName } from './scale.ts';
import { fingerGroup } from './signature.ts';

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
  /** Fingers as memorised: "1 2 4". */
  readonly fingers: string;
  /** Steps inside the group: "H W". */
  readonly steps: string;
}

/** A shape placed on the neck. */
export interface Position extends Omit<Placement, 'spots'> {
  /** Place along the neck, from 0. */
  readonly index: number;
  /** In playing order. */
  readonly spots: readonly PlacedSpot[];
  readonly lowFret: number;
  readonly highFret: number;
  /** Degree index of the first note. */
  readonly start: number;
  /** From the lowest string up; a relay has its legs one after the other. */
  readonly groups: readonly StringGroup[];
  /** Widest reach on one string, in frets. */
  readonly reach: number;
  /** Finger groups from the lowest string: "1 4 / 1 3 / …". */
  readonly signature: string;
}

/** Measures a placement: groups, reaches, signature. */
export function measure(neck: Neck, placement: Placement, index: number): Position {
  const { spots, ...rest } = placement;
  const byGroup = new Map<number, PlacedSpot[]>();
  for (const spot of spots) {
    const id = (spot.leg ?? 0) * 100 + neck.rising.indexOf(spot.string);
    const group = byGroup.get(id);
    if (group) group.push(spot);
    else byGroup.set(id, [spot]);
  }
  const raw = [...byGroup.entries()]
    .sort((a, b) => a[0] - b[0])
    .map(([id, group]) => ({ leg: Math.floor(id / 100), spots: group.sort((a, b) => a.fret - b.fret) }));
  const frets = spots.map((s) => s.fret);
  const lowFret = Math.min(...frets);
  const highFret = Math.max(...frets);
  const groups = raw.map(({ leg, spots: on }, i): StringGroup => {
    const own = on.map((s) => s.fret);
    // The hand's index fret: that of the whole position where one hand holds it, else that of the strings around.
    const near =
      highFret - lowFret <= 4
        ? lowFret
        : Math.min(...raw.slice(Math.max(0, i - 1), i + 2).map((g) => g.spots[0]!.fret));
    return {
      string: on[0]!.string,
      leg,
      frets: own,
      degrees: on.map((s) => s.degree),
      reach: own.at(-1)! - own[0]!,
      reachMm: spanOn(neck, own[0]!, own.at(-1)!),
      fingers: fingerGroup(own, rest.indexFret ?? near),
      steps: own
        .slice(1)
        .map((f, j) => stepName(f - own[j]!))
        .join(' '),
    };
  });
  return {
    ...rest,
    index,
    spots,
    lowFret,
    highFret,
    start: spots[0]!.degree,
    groups,
    reach: Math.max(...groups.map((g) => g.reach)),
    signature: groups.map((g) => g.fingers).join(' / '),
  };
}

/** Frets string by string from the lowest string: "5 8/5 7/5 7"; strings without a note are left out. */
export const fretText = (position: Position): string =>
  position.groups.map((g) => g.frets.join(' ')).join('/');

/** Where a spot lies in a position. */
export interface Holding {
  readonly position: Position;
  /** 1-based place in the playing order. */
  readonly order: number;
  /** 1-based place among the notes on its string. */
  readonly onString: number;
}

/** The positions that contain a spot, and where in them it lies. */
export function holding(positions: readonly Position[], string: number, fret: number): readonly Holding[] {
  return positions.flatMap((position) => {
    const order = position.spots.findIndex((s) => s.string === string && s.fret === fret);
    if (order < 0) return [];
    const leg = position.spots[order]!.leg ?? 0;
    const group = position.groups.find((g) => g.string === string && g.leg === leg);
    return [{ position, order: order + 1, onString: (group?.frets.indexOf(fret) ?? -1) + 1 }];
  });
}

/**
 * The position to show for a spot: one that has it as first note on its string comes first, among those one worth
 * learning or the main one of its region, then the one lying lowest. Null where none holds it.
 */
export function positionThrough(
  positions: readonly Position[],
  string: number,
  fret: number,
): Position | null {
  const rank = (h: Holding): number => (h.onString === 1 ? 0 : 2) + (h.position.main === false ? 1 : 0);
  return (
    [...holding(positions, string, fret)].sort(
      (a, b) => rank(a) - rank(b) || a.position.index - b.position.index,
    )[0]?.position ?? null
  );
}

/** The notes of a key's degree 1 inside a position. */
export const rootsIn = (position: Position): readonly PlacedSpot[] =>
  position.spots.filter((s) => s.degree === 0);

/** Step groups from the lowest string: "W+H / W / W"; a dash where a string has one note. */
export const stepSignature = (position: Position): string =>
  position.groups.map((g) => g.steps || '–').join(' / ');

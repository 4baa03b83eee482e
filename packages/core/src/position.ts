import { type Neck, spanOn } from './neck.ts';
import { type PlacedSpot, type Placement } from './layouts/spec.ts';
import { lazily } from './result.ts';
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
export interface Position extends Placement {
  /** Place along the neck, from 0. */
  readonly index: number;
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

function groupsOf(
  neck: Neck,
  { spots, indexFret }: Placement,
  low: number,
  high: number,
): readonly StringGroup[] {
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
  return raw.map(({ leg, spots: on }, i): StringGroup => {
    const own = on.map((s) => s.fret);
    // The hand's index fret: that of the whole position where one hand holds it, else that of the strings around.
    const near =
      high - low <= 4 ? low : Math.min(...raw.slice(Math.max(0, i - 1), i + 2).map((g) => g.spots[0]!.fret));
    return {
      string: on[0]!.string,
      leg,
      frets: own,
      degrees: on.map((s) => s.degree),
      reach: own.at(-1)! - own[0]!,
      reachMm: spanOn(neck, own[0]!, own.at(-1)!),
      fingers: fingerGroup(own, indexFret ?? near),
      steps: own
        .slice(1)
        .map((f, j) => stepName(f - own[j]!))
        .join(' '),
    };
  });
}

/** Measures a placement: its frets at once; groups, reach and signature when they are first asked for. */
export function measure(neck: Neck, placement: Placement, index: number): Position {
  const { spots } = placement;
  let lowFret = Infinity;
  let highFret = 0;
  for (const { fret } of spots) {
    if (fret < lowFret) lowFret = fret;
    if (fret > highFret) highFret = fret;
  }
  const groups = lazily(() => groupsOf(neck, placement, lowFret, highFret));
  return {
    ...placement,
    index,
    lowFret,
    highFret,
    start: spots[0]!.degree,
    get groups() {
      return groups();
    },
    get reach() {
      return Math.max(...groups().map((g) => g.reach));
    },
    get signature() {
      return groups()
        .map((g) => g.fingers)
        .join(' / ');
    },
  };
}

/** Frets string by string from the lowest string: "5 8/5 7/5 7"; strings without a note are left out. */
export const fretText = (position: Position): string =>
  position.groups.map((g) => g.frets.join(' ')).join('/');

/** The shape of a position: string by string its frets, counted from the lowest. It is the same in every key. */
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

/** The positions that contain a spot, and where in them it lies. */
export function holding(positions: readonly Position[], string: number, fret: number): readonly Holding[] {
  return positions.flatMap((position) => {
    const order = position.spots.findIndex((s) => s.string === string && s.fret === fret);
    if (order < 0) return [];
    const { leg } = position.spots[order]!;
    const below = position.spots.filter((s) => s.string === string && s.leg === leg && s.fret < fret);
    return [{ position, order: order + 1, onString: below.length + 1 }];
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

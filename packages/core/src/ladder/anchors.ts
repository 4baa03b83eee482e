import { type Neck, pitchAt, spotsOf } from '../neck.ts';
import { type Place, type Spot } from '../place.ts';
import { type Position, rootsIn } from '../position.ts';
import { type Key } from '../scale.ts';

const OCTAVE = 12;
/** Frets that an octave jump crosses at most, so that one hand has both ends. */
const JUMP_FRETS = 4;

/** From a root to the root an octave above it. */
export interface OctaveJump {
  readonly from: Place;
  readonly to: Place;
  /** Strings towards string 1; 0 along one string. Negative where a tuning rises the other way. */
  readonly strings: number;
  /** Frets up the neck; negative back towards the nut. */
  readonly frets: number;
}

/** The roots of a neck and how they hang together. */
export interface AnchorNet {
  /** From the lowest-pitched string, frets rising. */
  readonly roots: readonly Spot[];
  readonly jumps: readonly OctaveJump[];
}

/**
 * Every root on the neck, string by string from the lowest-pitched.
 *
 * @example rootSpots(neck, A).filter((s) => s.string === 6).map((s) => s.fret) // [5,17]
 */
export const rootSpots = (neck: Neck, key: Key): readonly Spot[] =>
  spotsOf(neck, key).filter((s) => s.degree === 0);

/**
 * The octave jumps between the roots of a neck: on other strings within four frets; where a root has none of these, along
 * its own string, twelve frets. In standard tuning: two strings up and two frets up from strings 6 and 5, three frets from
 * strings 4 and 3; three strings up and three frets back from string 6, two back from strings 5 and 4 (common practice).
 *
 * @example anchorNet(neck, A).roots.length // 12
 */
export function anchorNet(neck: Neck, key: Key): AnchorNet {
  const roots = rootSpots(neck, key);
  const jumps: OctaveJump[] = [];
  const joined = new Set<Spot>();
  const join = (from: Spot, to: Spot): void => {
    joined.add(from).add(to);
    jumps.push({
      from: { string: from.string, fret: from.fret },
      to: { string: to.string, fret: to.fret },
      strings: from.string - to.string,
      frets: to.fret - from.fret,
    });
  };
  for (const from of roots)
    for (const to of roots)
      if (
        to.midi - from.midi === OCTAVE &&
        to.string !== from.string &&
        Math.abs(to.fret - from.fret) <= JUMP_FRETS
      )
        join(from, to);
  for (const from of roots)
    for (const to of roots)
      if (
        from.string === to.string &&
        to.fret - from.fret === OCTAVE &&
        (!joined.has(from) || !joined.has(to))
      )
        join(from, to);
  return { roots, jumps };
}

/** A way in which octave jumps go, with the strings that they go from. */
export interface JumpRule {
  /** From the highest number down. */
  readonly from: readonly number[];
  readonly strings: number;
  readonly frets: number;
}

/**
 * How octave jumps between strings go on a neck: the fewest strings first.
 *
 * @example jumpRules(neck)[0] // {"from":[6,5],"strings":2,"frets":2}
 */
export function jumpRules(neck: Neck): readonly JumpRule[] {
  const rules = new Map<string, { from: number[]; strings: number; frets: number }>();
  for (let from = neck.open.length; from >= 1; from--)
    for (let to = from - 1; to >= 1; to--) {
      const frets = pitchAt(neck, from, OCTAVE) - pitchAt(neck, to, 0);
      if (Math.abs(frets) > JUMP_FRETS) continue;
      const strings = from - to;
      const rule = rules.get(`${strings}/${frets}`) ?? { from: [], strings, frets };
      rule.from.push(from);
      rules.set(`${strings}/${frets}`, rule);
    }
  return [...rules.values()].sort((a, b) => a.strings - b.strings || a.frets - b.frets);
}

/**
 * The strings on which a position has a root as its lowest note, where the index finger comes: in the five boxes of the
 * minor pentatonic each has its own (6 and 1, then 4, 2, 5 and 3 up the neck), so that a root's string picks the box.
 *
 * @example indexRoots(box) // [6,1]
 */
export const indexRoots = (position: Position): readonly number[] =>
  position.groups.filter((g) => g.degrees[0] === 0).map((g) => g.string);

/** A position that holds a root, and the nearest scale notes below and above it on its string within the position. */
export interface RootHeld {
  readonly position: Position;
  readonly below: Spot | null;
  readonly above: Spot | null;
}

/**
 * The positions that hold a place, with what lies on either side of it on its string, in neck order.
 *
 * @example holdersOf(boxes, { string: 6, fret: 5 }).map((h) => h.position.lowFret) // [2,5]
 */
export function holdersOf(positions: readonly Position[], { string, fret }: Place): readonly RootHeld[] {
  return positions.flatMap((position) => {
    const on = position.held.filter((s) => s.string === string).sort((a, b) => a.fret - b.fret);
    if (!on.some((s) => s.fret === fret)) return [];
    return [
      {
        position,
        below: on.filter((s) => s.fret < fret).at(-1) ?? null,
        above: on.find((s) => s.fret > fret) ?? null,
      },
    ];
  });
}

/**
 * The root of a position that lies nearest to a place: first by `rank`, then by frets, then by strings; null where it holds none.
 *
 * @example nearestRoot(box, { string: 5, fret: 7 })?.string // 4
 */
export function nearestRoot(
  position: Position,
  { string, fret }: Place,
  rank: (place: Place) => number = () => 0,
): Spot | null {
  const far = (s: Spot): number => Math.abs(s.fret - fret) * 100 + Math.abs(s.string - string);
  return [...rootsIn(position)].sort((a, b) => rank(a) - rank(b) || far(a) - far(b))[0] ?? null;
}

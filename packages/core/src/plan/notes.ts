import { type Neck, pitchAt, spotsOf } from '../neck.ts';
import { type Place, type Spot } from '../place.ts';
import { type Position, positionOf, type PositionRef } from '../position.ts';
import { ok, refuse, type Result } from '../result.ts';
import { routeThrough } from '../run/route.ts';
import { type Key } from '../scale.ts';
import { type PlanNote } from './task.ts';

/** Where a planned climb begins or ends, as a player says it; so many octaves are counted from where it begins, negative down. */
export type PlanEnd =
  | { readonly at: 'root' | 'lowest' | 'highest' }
  | { readonly at: 'octaves'; readonly octaves: number }
  | { readonly at: 'place'; readonly place: Place }
  | { readonly at: 'position'; readonly ref: PositionRef };

/** An end of a line: its pitch (MIDI), and the place where it is taken, null where any will do. */
export interface LineEnd {
  readonly midi: number;
  readonly place: Place | null;
}

/** What a climb is planned on: the positions of the ladder in neck order, and the chart's root. */
export interface PlanGround {
  readonly neck: Neck;
  readonly key: Key;
  readonly positions: readonly Position[];
  readonly root: Place;
}

/** The lowest and the highest note that an end can mean; they differ for a position only. */
function rangeOf(
  { neck, key, positions, root }: PlanGround,
  end: PlanEnd,
): Result<readonly [LineEnd, LineEnd]> {
  const one = (it: LineEnd): Result<readonly [LineEnd, LineEnd]> => ok([it, it]);
  const placed = (place: Place): LineEnd => ({ midi: pitchAt(neck, place.string, place.fret), place });
  const scale = spotsOf(neck, key);
  const pitches = scale.map((s) => s.midi);
  switch (end.at) {
    case 'root':
      return one(placed(root));
    case 'lowest':
      return one({ midi: Math.min(...pitches), place: null });
    case 'highest':
      return one({ midi: Math.max(...pitches), place: null });
    case 'octaves':
      return refuse(
        'plan.end',
        'So many octaves are counted from somewhere else: begin on a note or in a position.',
      );
    case 'place': {
      const { string, fret } = end.place;
      if (scale.some((s) => s.string === string && s.fret === fret)) return one(placed({ string, fret }));
      const near = scale
        .filter((s) => s.string === string)
        .sort((a, b) => Math.abs(a.fret - fret) - Math.abs(b.fret - fret))
        .slice(0, 2)
        .map((s) => s.fret)
        .sort((a, b) => a - b);
      return refuse(
        'plan.place',
        near.length
          ? `String ${string} fret ${fret} is no note of the scale: the nearest on this string are at frets ${near.join(' and ')}.`
          : `There is no string ${string} on this instrument: choose 1 to ${neck.open.length}.`,
      );
    }
    case 'position': {
      const position = positionOf(positions, end.ref);
      if (!position)
        return refuse(
          'plan.position',
          'The position that was chosen is not on this ladder any more: choose another one.',
        );
      const rising = [...position.spots].sort((a, b) => a.midi - b.midi);
      return ok([placed(rising[0]!), placed(rising.at(-1)!)]);
    }
  }
}

/**
 * The two ends of a planned climb. Between positions it goes from the far side of the one to the far side of the other: up
 * from the lowest note to the highest, down from the highest to the lowest. Octaves that leave the neck end with it. Codes:
 * `plan.place`, `plan.position`, `plan.end`.
 *
 * @example lineEnds({ neck, key: A, positions: boxes, root: { string: 6, fret: 5 } }, { at: 'root' }, { at: 'octaves', octaves: 2 }).value?.map((e) => e.midi) // [45,69]
 */
export function lineEnds(
  ground: PlanGround,
  from: PlanEnd,
  to: PlanEnd,
): Result<readonly [LineEnd, LineEnd]> {
  const first = rangeOf(ground, from);
  if (!first.ok) return first;
  if (to.at === 'octaves') {
    const start = first.value[to.octaves < 0 ? 1 : 0];
    return ok([start, { midi: start.midi + 12 * to.octaves, place: null }]);
  }
  const last = rangeOf(ground, to);
  if (!last.ok) return last;
  const [[a, b], [c, d]] = [first.value, last.value];
  return ok(c.midi + d.midi >= a.midi + b.midi ? [a, d] : [b, c]);
}

/**
 * The scale from one end to the other, and back where asked, every note on all its places but for the ends that have one;
 * the last scale note before the far end ends the line. Empty where the near end is no note of the scale, or nothing lies
 * between.
 *
 * @example notesBetween({ neck, key: A }, { midi: 45, place: { string: 6, fret: 5 } }, { midi: 69, place: null }, false).length // 11
 */
export function notesBetween(
  { neck, key }: Pick<PlanGround, 'neck' | 'key'>,
  from: LineEnd,
  to: LineEnd,
  back: boolean,
): readonly PlanNote[] {
  const byPitch = new Map<number, Spot[]>();
  for (const s of spotsOf(neck, key)) byPitch.set(s.midi, [...(byPitch.get(s.midi) ?? []), s]);
  const up = to.midi >= from.midi;
  const [low, high] = up ? [from.midi, to.midi] : [to.midi, from.midi];
  const pitches = [...byPitch.keys()]
    .filter((m) => m >= low && m <= high)
    .sort((a, b) => (up ? a - b : b - a));
  if (pitches[0] !== from.midi || pitches.length < 2) return [];
  const notes = pitches.map((midi, i): PlanNote => {
    const spots = byPitch.get(midi)!;
    const fixed = i === 0 ? from.place : midi === to.midi ? to.place : null;
    const places = fixed ? [fixed] : spots;
    return {
      midi,
      degree: spots[0]!.degree,
      places: places.map(({ string, fret }) => ({ string, fret })),
    };
  });
  return routeThrough(notes, back ? 'both' : 'up');
}

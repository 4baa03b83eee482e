import { mod } from '../arithmetic.ts';
import { type PitchClass } from '../note.ts';
import { ok, refuse, type Result } from '../result.ts';
import { type Spot } from '../place.ts';

/** A stretch of a line over one chord. */
export interface LineSlot {
  /** How many notes it has. */
  readonly notes: number;
  /** Which of its notes, from 0, fall on the first beat of a bar, or on the chord's own beginning. */
  readonly firsts: readonly number[];
  /** Pitch classes of the chord. */
  readonly tones: readonly PitchClass[];
  /** Pitch classes of the scale over it. */
  readonly scale: readonly PitchClass[];
}

/**
 * What a line costs beside going on by steps of the scale, as this project judges it: each note of the scale that is passed over, a turn, a turn at
 * the end of the range, where there is no other way, and a note struck again. Among lines that cost the same the one that moves by the fewest half
 * steps is taken: a half step counts as `perHalfStep`.
 */
export const CHANGES_COST = { pass: 1, turn: 2, edge: 0.5, again: 8, perHalfStep: 0.001 } as const;

type Way = 1 | -1;
/**
 * The cost of going from one pitch to another among those of a scale that may be played, and the direction then.
 *
 * @example lineCost(45, 50, 1, [45, 48, 50]).cost // 1.005
 */
export function lineCost(
  from: number,
  to: number,
  way: Way,
  among: readonly number[],
): { readonly cost: number; readonly way: Way } {
  if (from === to) return { cost: CHANGES_COST.again, way };
  const now: Way = to > from ? 1 : -1;
  const between = among.filter((m) => (m - from) * now > 0 && (to - m) * now > 0).length;
  const isEdge = !among.some((m) => (m - from) * way > 0);
  const turn = now === way ? 0 : isEdge ? CHANGES_COST.edge : CHANGES_COST.turn;
  return {
    cost: between * CHANGES_COST.pass + turn + Math.abs(to - from) * CHANGES_COST.perHalfStep,
    way: now,
  };
}

/**
 * The cheapest line through chords, one place a pitch: upwards from the lowest root of the first chord, on notes of each scale, with a note of the
 * chord on each first beat. `spots` are the places that the hand reaches. A shortest path over pitch and direction; held against every line on small
 * cases. Codes: `line.room` where the hand reaches no note that is asked for.
 *
 * @example lineThrough(box.spots, [{ notes: 4, firsts: [0], tones: [9, 0, 4], scale: [9, 0, 2, 4, 7] }]).value?.map((s) => s.midi) // [45,48,50,52]
 */
export function lineThrough(spots: readonly Spot[], slots: readonly LineSlot[]): Result<readonly Spot[]> {
  const byPitch = new Map([...spots].sort((a, b) => a.midi - b.midi).map((s) => [s.midi, s]));
  const reach = [...byPitch.keys()];
  const of = (classes: readonly PitchClass[]) => reach.filter((m) => classes.includes(mod(m, 12)));
  const notes = slots.flatMap(({ notes: many, firsts, tones, scale }) => {
    const among = of([...scale, ...tones]);
    return Array.from({ length: many }, (_, i) => ({
      among,
      // A chord note that the scale has not is played where it has none of the chord’s within reach.
      may: firsts.includes(i) ? first(of(tones.filter((pc) => scale.includes(pc))), of(tones)) : of(scale),
    }));
  });
  if (!notes.length) return ok([]);
  interface State {
    readonly midi: number;
    readonly way: Way;
    readonly cost: number;
    readonly before: State | null;
  }
  const root = slots[0]!.tones[0];
  const begin = notes[0]!.may.filter((m) => mod(m, 12) === root)[0] ?? notes[0]!.may[0];
  if (begin === undefined) return noRoom();
  let states: readonly State[] = [{ midi: begin, way: 1, cost: 0, before: null }];
  for (const { may, among } of notes.slice(1)) {
    const next = new Map<string, State>();
    for (const state of states)
      for (const midi of may) {
        const { cost, way } = lineCost(state.midi, midi, state.way, among);
        const id = `${midi} ${way}`;
        const total = state.cost + cost;
        if (total < (next.get(id)?.cost ?? Infinity)) next.set(id, { midi, way, cost: total, before: state });
      }
    states = [...next.values()];
  }
  const best = states.reduce<State | null>((a, b) => (a && a.cost <= b.cost ? a : b), null);
  if (!best) return noRoom();
  const line: Spot[] = [];
  for (let at: State | null = best; at; at = at.before) line.push(byPitch.get(at.midi)!);
  return ok(line.reverse());
}
const first = (some: readonly number[], others: readonly number[]): readonly number[] =>
  some.length ? some : others;
const noRoom = () =>
  refuse(
    'line.room',
    'The position in front has not the notes for this line: choose another position, or a layout with more notes.',
  );

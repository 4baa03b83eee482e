import { type Neck, spanOn } from '../neck.ts';
import { COMFORTABLE_SPAN_MM, COST } from './costs.ts';

/** How a player uses the fretting hand. */
export type FingeringSchool = 'onePerFret' | 'threeFingers' | 'slides';

export const FINGERING_SCHOOLS: readonly { readonly id: FingeringSchool; readonly name: string }[] = [
  { id: 'onePerFret', name: 'one finger per fret' },
  { id: 'threeFingers', name: 'three fingers' },
  { id: 'slides', name: 'index and ring with slides' },
];

/** A place to be played, in order. */
export interface RunNote {
  readonly string: number;
  readonly fret: number;
}

/** What the hand does to get to a note. */
export type Move = 'start' | 'stay' | 'shift' | 'slide' | 'closeUp';

export interface FingeredNote extends RunNote {
  /** 0 open string, 1 index … 4 little finger. */
  readonly finger: number;
  /** Fret under the relaxed index finger. */
  readonly hand: number;
  readonly stretch: 'none' | 'index' | 'forward';
  readonly move: Move;
}

export interface Fingering {
  readonly notes: readonly FingeredNote[];
  readonly cost: number;
  /** Places where the hand moves. */
  readonly shifts: number;
  readonly stretches: number;
}

export interface HandOptions {
  readonly school: FingeringSchool;
  /** Comfortable span in mm between index and last finger. */
  readonly spanMm?: number;
}

/** One way to take one note: finger, hand and stretch. */
export interface Grip {
  readonly finger: number;
  readonly hand: number;
  readonly stretch: FingeredNote['stretch'];
  /** Cost of the note taken so. */
  readonly cost: number;
}

const FINGERS: Readonly<Record<FingeringSchool, readonly number[]>> = {
  onePerFret: [1, 2, 3, 4],
  threeFingers: [1, 2, 3],
  slides: [1, 2, 3],
};

/** All grips of a fretted note under a school. The hand may lie behind the first fret by the width of a stretch only. */
function frettedGrips(
  neck: Neck,
  note: RunNote,
  { school, spanMm = COMFORTABLE_SPAN_MM }: HandOptions,
): Grip[] {
  const fingers = FINGERS[school];
  const last = fingers.at(-1)!;
  const grip = (finger: number, stretch: Grip['stretch']): Grip => {
    const hand = note.fret - (finger - 1) - (stretch === 'forward' ? 1 : stretch === 'index' ? -1 : 0);
    const from = stretch === 'index' ? hand - 1 : hand;
    const to = hand + last - 1 + (stretch === 'forward' ? 1 : 0);
    const over = stretch === 'none' ? 0 : Math.max(0, spanOn(neck, Math.max(0, from), to) - spanMm);
    const bent =
      stretch === 'none'
        ? 0
        : stretch === 'index'
          ? COST.indexBack
          : last === 3
            ? COST.ringForward
            : COST.littleForward;
    const weak = finger === 4 ? COST.little : finger === 3 ? COST.ring : 0;
    const unusual = school === 'slides' && finger === 2 ? COST.middleForSliders : 0;
    return { finger, hand, stretch, cost: bent + weak + unusual + over * COST.perMmOver };
  };
  const grips = fingers.map((f) => grip(f, 'none'));
  if (school !== 'slides') grips.push(grip(1, 'index'), grip(last, 'forward'));
  return grips.filter((g) => g.hand >= 1);
}

/**
 * The grips of every note. An open string needs no finger: the hand is where it was, or already where the next
 * fretted note wants it.
 */
export function gripsOf(
  neck: Neck,
  run: readonly RunNote[],
  hand: HandOptions,
): readonly (readonly Grip[])[] {
  const fretted = run.map((n) => (n.fret > 0 ? frettedGrips(neck, n, hand) : null));
  const openAt = (hands: Iterable<number>): Grip[] =>
    [...new Set(hands)].map((h) => ({ finger: 0, hand: h, stretch: 'none' as const, cost: 0 }));
  // Forward and back once each, so that a long run of open strings stays linear.
  const before: (readonly Grip[] | null)[] = [];
  const after: (readonly Grip[] | null)[] = [];
  fretted.forEach((g, i) => (before[i] = g ?? before[i - 1] ?? null));
  for (let i = run.length - 1; i >= 0; i--) after[i] = fretted[i] ?? after[i + 1] ?? null;
  return fretted.map((g, i) => {
    if (g) return g;
    const hands = [...(before[i] ?? []), ...(after[i] ?? [])].map((grip) => grip.hand);
    return openAt(hands.length ? hands : [1]);
  });
}

export interface Step {
  readonly cost: number;
  readonly move: Move;
}

/**
 * Cost of going from one grip to the next. `third` is true where the earlier note is at least the second of its
 * string, so that a slide falls on the third note of a group.
 */
export function stepBetween(
  a: RunNote,
  ga: Grip,
  b: RunNote,
  gb: Grip,
  third: boolean,
  school: FingeringSchool,
): Step {
  const travel = gb.hand - ga.hand;
  const sameFinger = ga.finger === gb.finger && ga.finger > 0;
  if (travel === 0) {
    if (!sameFinger) return { cost: 0, move: 'stay' };
    if (a.string === b.string) {
      // The same finger cannot press two frets of a string from one place, unless it stretches: that is a slide.
      return a.fret === b.fret ? { cost: 0, move: 'stay' } : { cost: COST.slide, move: 'slide' };
    }
    if (a.fret !== b.fret) return { cost: COST.hop, move: 'stay' };
    return { cost: Math.abs(a.string - b.string) === 1 ? COST.roll : COST.hop, move: 'stay' };
  }
  const way = COST.shiftPerFret * Math.abs(travel);
  if (a.string === b.string && sameFinger) {
    const bonus =
      (third ? COST.slideOnThird : 0) -
      (school === 'slides' ? COST.slideForSliders : 0) +
      (gb.finger === 4 ? COST.slideOnLittle : 0);
    return { cost: COST.slide + bonus + way, move: 'slide' };
  }
  const last = FINGERS[school].at(-1)!;
  const lead = travel > 0 ? gb.finger > 2 : gb.finger > 0 && gb.finger < Math.min(3, last);
  const awkward = lead && gb.finger > 0 ? COST.wrongLead : 0;
  const sameString = a.string === b.string && ga.finger > 0 && gb.finger > 0;
  return {
    cost: COST.shift + way + awkward + (sameString ? COST.closeUp : 0),
    move: sameString ? 'closeUp' : 'shift',
  };
}

/** True where note i is the third or later of consecutive notes on its string. */
export const isThird = (run: readonly RunNote[], i: number): boolean =>
  i >= 2 && run[i]!.string === run[i - 1]!.string && run[i]!.string === run[i - 2]!.string;

interface Cell {
  readonly cost: number;
  readonly grip: number;
  readonly from: Cell | null;
  readonly move: Move;
  /** Notes fingered differently from each barred fingering so far, counted up to the number wanted. */
  readonly differs: readonly number[];
}

const read = (run: readonly RunNote[], grips: readonly (readonly Grip[])[], end: Cell): Fingering => {
  const notes: FingeredNote[] = [];
  for (let cell: Cell | null = end, i = run.length - 1; cell; cell = cell.from, i--) {
    const { finger, hand, stretch } = grips[i]![cell.grip]!;
    notes.push({ string: run[i]!.string, fret: run[i]!.fret, finger, hand, stretch, move: cell.move });
  }
  notes.reverse();
  return {
    notes,
    cost: end.cost,
    shifts: notes.filter((n) => n.move !== 'stay' && n.move !== 'start').length,
    stretches: notes.filter((n) => n.stretch !== 'none').length,
  };
};

/** A fingering that differs from each of `barred` in the fingers of at least `least` notes, at least cost; or null. */
function cheapest(
  neck: Neck,
  run: readonly RunNote[],
  hand: HandOptions,
  barred: readonly Fingering[],
  least: number,
): Fingering | null {
  if (!run.length) return { notes: [], cost: 0, shifts: 0, stretches: 0 };
  const grips = gripsOf(neck, run, hand);
  const count = (differs: readonly number[], i: number, finger: number): readonly number[] =>
    barred.length
      ? differs.map((d, b) => Math.min(least, d + (barred[b]!.notes[i]!.finger === finger ? 0 : 1)))
      : differs;
  const none = barred.map(() => 0);
  let cells: Cell[] = grips[0]!.map((g, k) => ({
    cost: g.cost,
    grip: k,
    from: null,
    move: 'start',
    differs: count(none, 0, g.finger),
  }));
  for (let i = 1; i < run.length; i++) {
    const third = isThird(run, i);
    const next: Cell[] = [];
    grips[i]!.forEach((g, k) => {
      const best = new Map<string, Cell>();
      for (const from of cells) {
        const step = stepBetween(run[i - 1]!, grips[i - 1]![from.grip]!, run[i]!, g, third, hand.school);
        const cost = from.cost + step.cost + g.cost;
        const differs = count(from.differs, i, g.finger);
        const id = differs.join();
        const known = best.get(id);
        if (!known || cost < known.cost) best.set(id, { cost, grip: k, from, move: step.move, differs });
      }
      next.push(...best.values());
    });
    cells = next;
  }
  const ends = cells.filter((c) => c.differs.every((d) => d >= least)).sort((a, b) => a.cost - b.cost);
  return ends[0] ? read(run, grips, ends[0]) : null;
}

/**
 * The fingering of an ordered run at least cost over all possibilities, by dynamic programming over the grips of
 * each note: linear in the number of notes. Going down is solved for itself: pass the notes in that order.
 */
export function finger(neck: Neck, run: readonly RunNote[], hand: HandOptions): Fingering {
  return cheapest(neck, run, hand, [], 0)!;
}

/** Notes whose fingers must differ for a fingering to be another one. */
const REALLY_DIFFERENT = 2;

/** Up to `count` fingerings, the best first; each differs from every earlier one in the fingers of two notes or more. */
export function fingerings(
  neck: Neck,
  run: readonly RunNote[],
  hand: HandOptions,
  count: number,
): readonly Fingering[] {
  const found: Fingering[] = [];
  while (found.length < count) {
    const next = cheapest(neck, run, hand, found, REALLY_DIFFERENT);
    if (!next) break;
    found.push(next);
  }
  return found;
}

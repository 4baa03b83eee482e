import { type Neck, spanOn } from '../neck.ts';
import { type Place } from '../place.ts';
import { COMFORTABLE_SPAN_MM, COST, STRETCH } from './costs.ts';
import { moveBetween, presses, type Route, TAP } from './run.ts';

/** How a player uses the fretting hand. */
export type FingeringSchool = 'onePerFret' | 'threeFingers' | 'slides' | 'oneTwoFour';

export const FINGERING_SCHOOLS: readonly { readonly id: FingeringSchool; readonly name: string }[] = [
  { id: 'onePerFret', name: 'one finger per fret' },
  { id: 'threeFingers', name: 'three fingers' },
  { id: 'slides', name: 'index and ring with slides' },
  { id: 'oneTwoFour', name: 'index, middle and little finger below fret 5 (bass)' },
];

export interface HandOptions {
  readonly school: FingeringSchool;
  /** Comfortable span in mm between index and last finger. */
  readonly spanMm?: number;
}

/** One way to take one note. */
export interface Grip {
  readonly finger: number;
  readonly hand: number;
  /** −1 the index finger is stretched back, 1 the last one forward. */
  readonly stretch: -1 | 0 | 1;
  /** Cost of the note taken so. */
  readonly cost: number;
}

/**
 * What a place of the hand has stretched, as bits: 1 the index finger back, 2 the last one forward.
 *
 * @example bentBy({ stretch: -1 }) // 1
 */
export const bentBy = ({ stretch }: Pick<Grip, 'stretch'>): number => (stretch < 0 ? 1 : stretch > 0 ? 2 : 0);
/** Both from one place of the hand are further than it reaches: that is a shift. */
export const TOO_FAR = 3;

/** The last finger that a school frets with. */
export const LAST: Readonly<Record<FingeringSchool, number>> = {
  onePerFret: 4,
  threeFingers: 3,
  slides: 3,
  oneTwoFour: 4,
};

/** Below this fret ring and little finger are one in the school of bass players with a short span (common practice, no source). */
const ONE_TWO_FOUR_BELOW = 5;
const isShort = (school: FingeringSchool, hand: number): boolean =>
  school === 'oneTwoFour' && hand < ONE_TWO_FOUR_BELOW;
/** Frets under the resting hand. */
const covered = (school: FingeringSchool, hand: number): number => (isShort(school, hand) ? 3 : LAST[school]);

/**
 * All grips of a fretted note under a school. The hand may lie behind the first fret by the width of a stretch only.
 *
 * @example frettedGrips(neck, 7, hand).map((g) => g.hand) // [7,6,5,4,8,3]
 */
export function frettedGrips(
  neck: Neck,
  fret: number,
  { school, spanMm = COMFORTABLE_SPAN_MM }: HandOptions,
): Grip[] {
  const last = LAST[school];
  /** A finger that rests so many frets above the index finger. */
  const grip = (finger: number, stretch: -1 | 0 | 1, over = finger - 1): Grip => {
    const hand = fret - over - stretch;
    let cost = finger === 4 ? COST.little : finger === 3 ? COST.ring : 0;
    if (school === 'slides' && finger === 2) cost += COST.middleForSliders;
    const end = stretch === 0 ? fret : Math.max(fret, hand + last - 1);
    const mm = spanOn(neck, Math.max(0, Math.min(fret, hand)), end);
    if (stretch !== 0) {
      const bent = stretch < 0 ? COST.indexBack : last === 3 ? COST.ringForward : COST.littleForward;
      cost += bent * (STRETCH.least + STRETCH.perMm * mm);
    }
    cost += COST.perMmOver * Math.max(0, mm - spanMm);
    return { finger, hand, stretch, cost };
  };
  const grips = Array.from({ length: last }, (_, i) => grip(i + 1, 0));
  if (school !== 'slides') grips.push(grip(1, -1), grip(last, 1));
  const wide = grips.filter(
    (g) => g.hand >= 1 && !(isShort(school, g.hand) && (g.finger > 2 || g.stretch !== 0)),
  );
  const little = grip(4, 0, 2);
  return isShort(school, little.hand) && little.hand >= 1 ? [...wide, little] : wide;
}

/**
 * The grips of every note; those of the finger and of the place of the hand that are asked for, where the hand has one. An open string and a tapped note
 * need no finger: the hand is where it was, or already where the next fretted note wants it.
 *
 * @example gripsOf(neck, [box.spots[0]], hand)[0].length // 6
 */
export function gripsOf(neck: Neck, route: Route, hand: HandOptions): readonly (readonly Grip[])[] {
  const byFret = new Map<number, readonly Grip[]>();
  const fretted = route.map(({ fret, by, hand: at }) => {
    if (fret === 0 || by === TAP) return null;
    const known = byFret.get(fret) ?? frettedGrips(neck, fret, hand);
    byFret.set(fret, known);
    const asked = known.filter(
      (g) => (by === undefined || g.finger === by) && (at === undefined || g.hand === at),
    );
    return asked.length ? asked : known;
  });
  const freeAt = (finger: number, hands: readonly number[]): Grip[] =>
    [...new Set(hands)].map((h) => ({ finger, hand: h, stretch: 0, cost: 0 }));
  // Forward and back once each, so that a long run of open strings stays linear.
  const before: (readonly Grip[] | null)[] = [];
  const after: (readonly Grip[] | null)[] = [];
  fretted.forEach((g, i) => (before[i] = g ?? before[i - 1] ?? null));
  for (let i = route.length - 1; i >= 0; i--) after[i] = fretted[i] ?? after[i + 1] ?? null;
  return fretted.map((g, i) => {
    if (g) return g;
    const hands = [...(before[i] ?? []), ...(after[i] ?? [])].map((grip) => grip.hand);
    return freeAt(route[i]!.fret === 0 ? 0 : TAP, hands.length ? hands : [1]);
  });
}

/** The farthest that the little finger slides, in frets; the others go as far as the scale does. */
export const LITTLE_SLIDES = 2;

/**
 * Cost of going from one grip to the next; `slid` is true where the later note is the one of its group to which players slide.
 *
 * @example passage({ string: 6, fret: 5 }, { finger: 1, hand: 5 }, { string: 6, fret: 7 }, { finger: 3, hand: 5 }, false, 'onePerFret') // 0
 */
export function passage(
  a: Place,
  ga: Pick<Grip, 'finger' | 'hand'>,
  b: Place,
  gb: Pick<Grip, 'finger' | 'hand'>,
  slid: boolean,
  school: FingeringSchool,
): number {
  const travel = gb.hand - ga.hand;
  const way = COST.perFret * Math.abs(travel);
  const move = moveBetween(a, ga, b, gb);
  // On one string the hand goes the way of the line.
  const against = a.string === b.string && travel * (b.fret - a.fret) < 0 ? COST.never : 0;
  if (move === 'slide')
    return (
      COST.slide +
      way +
      (slid ? COST.slideOnThird : 0) +
      (school === 'slides' ? COST.slideForSliders : 0) +
      (gb.finger === 4 ? COST.slideOnLittle : 0) +
      (gb.finger === 4 && Math.abs(b.fret - a.fret) > LITTLE_SLIDES ? COST.never : 0) +
      against
    );
  if (move === 'stay') {
    if (ga.finger !== gb.finger || !presses(gb.finger) || a.string === b.string) return 0;
    return a.fret === b.fret && Math.abs(a.string - b.string) === 1 ? COST.roll : COST.hop;
  }
  if (!presses(gb.finger)) return COST.shift + way;
  const reached = b.fret >= ga.hand && b.fret < ga.hand + covered(school, ga.hand);
  if (reached && move === 'shift') return COST.shift + way;
  const leads = travel > 0 ? gb.finger < 3 : gb.finger >= Math.min(3, LAST[school]);
  return (
    COST.shift +
    COST.aim +
    way +
    (move === 'closeUp' ? COST.closeUp + against : 0) +
    (leads ? 0 : COST.wrongLead)
  );
}

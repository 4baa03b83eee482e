import { type Place, type Spot } from '../place.ts';

/** Ticks of a quarter note: eighths (480), triplets (320), sixteenths (240) and sextuplets (160) are whole numbers of it. */
export const QUARTER = 960;

/**
 * Whether a tick lies on a multiple of a part of a beat; of sevenths, which are no whole ticks, within half a tick.
 *
 * @example isOn(137, QUARTER / 7) // true
 */
export const isOn = (tick: number, unit: number): boolean =>
  Math.abs(tick - Math.round(tick / unit) * unit) <= 0.5;

/** The number of a finger of the picking hand, where a note is tapped. */
export const TAP = 5;

/** A spot to be played. */
export interface RouteNote extends Spot {
  /** The finger that is asked for, 1 to 4 or `TAP`, else the fingering chooses. */
  readonly by?: number;
  /** The place of the hand that is asked for, as a fret under the index finger. */
  readonly hand?: number;
}

/** The notes of a run in the order of play: what the first stage decides. */
export type Route = readonly RouteNote[];

/** A spot with the finger that presses it and the place of the hand: what the second stage adds. */
export interface Fingered {
  readonly spot: Spot;
  /** 0 an open string, 1 the index … 4 the little finger, `TAP` a finger of the picking hand. */
  readonly finger: number;
  /** Fret under the relaxed index finger, from 1. */
  readonly hand: number;
}

/** How a note is reached. */
export type Arrive = 'pick' | 'slide' | 'hammer' | 'pull' | 'tap';

/** A string pulled or pushed aside, so that it sounds higher. */
export interface Bend {
  /** By how many half steps, in quarter tones: 0.5 to 3. */
  readonly by: number;
  /** At once, or slowly over the first part of the note. */
  readonly how: 'once' | 'slowly';
  /** Whether it goes back within the note. */
  readonly released: boolean;
}
/** A held note that wavers. */
export interface Vibrato {
  /** How far, in cents. */
  readonly cents: number;
  /** Waves a second. */
  readonly waves: number;
}

/** What the third stage adds. */
export interface Articulated extends Fingered {
  readonly arrive: Arrive;
  readonly bend?: Bend;
  readonly vibrato?: Vibrato;
  /** Struck louder than what is around it. */
  readonly accent?: true;
}

/** One note of a run, with what the fourth stage adds: start and length in ticks. */
export interface Step extends Articulated {
  readonly start: number;
  readonly length: number;
}

/** Notes to be played in order. */
export type Run = readonly Step[];

/**
 * Whether a finger of the fretting hand presses: open strings and tapped notes need none.
 *
 * @example presses(0) // false
 */
export const presses = (finger: number): boolean => finger > 0 && finger !== TAP;

/**
 * How far a finger is stretched from its place in the hand, in frets: −1 the index back, 1 the last finger forward. The little finger
 * on the ring finger's fret is not: some schools take both as one there.
 *
 * @example stretchOf(steps[0]) // 0
 */
export function stretchOf({ spot, finger, hand }: Fingered): number {
  if (!presses(finger)) return 0;
  const away = spot.fret - (hand + finger - 1);
  return finger === 4 && away === -1 ? 0 : away;
}

/** What the hand does to get to a note; `closeUp` changes place between two fingers on one string. */
export type Move = 'start' | 'stay' | 'shift' | 'slide' | 'closeUp';

/** A grip as far as moves go. */
type Held = Pick<Fingered, 'finger' | 'hand'>;

/**
 * What the hand does between two notes. A finger that changes its fret on a string slides, even if only by stretching.
 *
 * @example moveBetween({ string: 6, fret: 5 }, { finger: 1, hand: 5 }, { string: 6, fret: 7 }, { finger: 1, hand: 7 }) // "slide"
 */
export function moveBetween(a: Place, from: Held, b: Place, to: Held): Move {
  const along = a.string === b.string && presses(from.finger) && presses(to.finger);
  if (along && from.finger === to.finger && a.fret !== b.fret) return 'slide';
  if (from.hand === to.hand) return 'stay';
  return along ? 'closeUp' : 'shift';
}

/**
 * What the hand does to get to note i of a run.
 *
 * @example moveTo(steps, 1) // "stay"
 */
export function moveTo(steps: readonly Fingered[], i: number): Move {
  const [a, b] = [steps[i - 1], steps[i]!];
  return a ? moveBetween(a.spot, a, b.spot, b) : 'start';
}

/**
 * Whether the hand changes its place for note i. A finger that slides by stretching leaves the hand where it is.
 *
 * @example movesAt(steps, 1) // false
 */
export const movesAt = (steps: readonly Fingered[], i: number): boolean =>
  i > 0 && steps[i - 1]!.hand !== steps[i]!.hand;

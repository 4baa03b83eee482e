import { BEND, bentAt, type Held, USUAL_VIBRATO, VIBRATO } from '@crow-ladder/core/run';
import { HEARD } from './write.ts';

/** How high a string is bent at a time, in half steps; times in seconds from the beginning of its note. */
export interface Bent {
  readonly at: number;
  readonly up: number;
}

/** A curve that is further than this part of its height from any bend that is known, on average, is remarked. */
const FAR = 0.3;

/** Curves this near are the same but for rounding, as a mean square of half steps. */
const SAME = 1e-5;

/** How far a curve is from what a note held so sounds, in half steps, as a mean square. */
const distance = (curve: readonly Bent[], held: Held, seconds: number): number =>
  curve.reduce((sum, { at, up }) => sum + (bentAt(held, at, seconds) - up) ** 2, 0) / curve.length;

/** How often a curve turns down from a peak, of at least so many half steps. */
function waves(curve: readonly Bent[]): number {
  let [peaks, low, high] = [0, Infinity, -Infinity];
  for (const { up } of curve) {
    high = Math.max(high, up);
    if (high - up > HEARD / 2) {
      if (high - low > HEARD / 2) peaks++;
      [low, high] = [up, up];
    }
    low = Math.min(low, up);
  }
  return peaks;
}

/** Depths of a vibrato that a curve may have, in cents: what its waves look like, a little more or less, and the usual one. */
function depths(curve: readonly Bent[]): readonly number[] {
  const [least, most] = VIBRATO.cents as readonly [number, number];
  const high = Math.max(...curve.map(({ up }) => up));
  const top = curve.findIndex(({ up }) => up === high);
  const low = Math.min(...curve.slice(top).map(({ up }) => up));
  const looks = Math.round(100 * (high - low));
  const near = [-2, -1, 1, 2].map((by) => looks + by);
  return [...new Set([looks, USUAL_VIBRATO.cents, ...near, Math.round(100 * high)])].filter(
    (it) => it >= least && it <= most,
  );
}

/**
 * What a curve of pitch over a note is: a bend, a vibrato or both, or nothing; the nearest that can be played, and whether it is near.
 */
export function heldOf(
  curve: readonly Bent[],
  seconds: number,
): { readonly held: Held; readonly near: boolean } {
  const high = curve.reduce((so, { up }) => Math.max(so, up), 0);
  if (high < HEARD) return { held: {}, near: curve.every(({ up }) => up > -HEARD) };
  const by = Math.round(high / BEND.step) * BEND.step;
  const bends: Held[] = [{}];
  if (by >= BEND.least && by <= BEND.most)
    for (const how of ['once', 'slowly'] as const)
      for (const released of [false, true]) bends.push({ bend: { by, how, released } });
  let best: Held = {};
  let least = Infinity;
  const tryOut = (held: Held): void => {
    const far = distance(curve, held, seconds);
    if (far < least) [best, least] = [held, far];
  };
  bends.forEach(tryOut);
  // A vibrato that is too short to be seen is one if nothing else is the curve.
  const usual = bends.map((held): Held => ({ ...held, vibrato: USUAL_VIBRATO }));
  if (least > SAME) usual.filter((held) => distance(curve, held, seconds) < SAME).forEach(tryOut);
  if (waves(curve) > 0) {
    // First how fast, then how deep.
    const [slowest, fastest] = VIBRATO.waves as readonly [number, number];
    const all = depths(curve);
    const speeds = Array.from({ length: fastest - slowest + 1 }, (_, i) => slowest + i);
    for (const held of bends)
      for (const speed of speeds)
        for (const cents of all.slice(0, 2)) tryOut({ ...held, vibrato: { cents, waves: speed } });
    const { vibrato, ...bent } = best;
    if (vibrato) for (const cents of all) tryOut({ ...bent, vibrato: { ...vibrato, cents } });
  }
  return { held: best, near: Math.sqrt(least) <= FAR * Math.max(high, BEND.least) };
}

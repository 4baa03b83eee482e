import { frequency } from '../note.ts';

/** So many partials of a note are looked at, and none above this frequency, in Hz. */
const PARTIALS = 10;
const HIGHEST_HZ = 6000;
/** How much a stiff string sharpens its partials: partial n lies at n·f·√(1 + B·n²); B as of a usual guitar string (Fletcher, 1964). */
const STIFF = 0.00008;
/** A partial is looked for within this part of its frequency: a string may be out of tune by 20 cents. */
const NEAR = 0.006;

/**
 * How much a spectrum speaks for a pitch, MIDI number: over its partials the mean of √(magnitude there) − √(magnitude half-way to the one
 * below), weighed by 1/√n, so that an octave above or below gains nothing. `bin` is the width of a bin in Hz.
 *
 * @example salience(new Float32Array(4097), 48000 / 8192, 57) // 0
 */
export function salience(magnitudes: Float32Array, bin: number, midi: number): number {
  const first = frequency(midi);
  let [sum, weights] = [0, 0];
  for (let n = 1; n <= PARTIALS; n++) {
    const at = n * first * Math.sqrt(1 + STIFF * n * n);
    if (at > HIGHEST_HZ) break;
    const weight = 1 / Math.sqrt(n);
    const between = ((n - 0.5) * first) / bin;
    sum +=
      weight *
      (Math.sqrt(greatest(magnitudes, (at * (1 - NEAR)) / bin, (at * (1 + NEAR)) / bin)) -
        Math.sqrt(greatest(magnitudes, between, between)));
    weights += weight;
  }
  return weights ? sum / weights : 0;
}

/** The greatest magnitude from a bin to another, fractions of bins widened. */
function greatest(magnitudes: Float32Array, from: number, to: number): number {
  let most = 0;
  const last = Math.min(magnitudes.length - 1, Math.ceil(to));
  for (let k = Math.max(0, Math.floor(from)); k <= last; k++) most = Math.max(most, magnitudes[k]!);
  return most;
}

/** A pitch with what speaks for it. */
export interface Candidate {
  readonly midi: number;
  readonly score: number;
}
/**
 * The pitch from `low` to `high`, MIDI numbers, in steps of so many half steps, for which a spectrum speaks most.
 *
 * @example likeliest(new Float32Array(4097), 48000 / 8192, 40, 40) // {"midi":40,"score":0}
 */
export function likeliest(
  magnitudes: Float32Array,
  bin: number,
  low: number,
  high: number,
  step = 1,
): Candidate {
  let best: Candidate = { midi: low, score: salience(magnitudes, bin, low) };
  for (let midi = low + step; midi <= high; midi += step) {
    const score = salience(magnitudes, bin, midi);
    if (score > best.score) best = { midi, score };
  }
  return best;
}

/** How far from a pitch its first partials are looked for, in half steps, and how many of them. */
const ASTRAY = { halfSteps: 0.6, partials: 3 };

/**
 * How far a note is from a pitch, MIDI number, in cents: from the peaks of its first partials, each between bins by a parabola through
 * the logarithms, the louder the more it counts.
 *
 * @example centsOf(new Float32Array(4097), 48000 / 8192, 57) // 0
 */
export function centsOf(magnitudes: Float32Array, bin: number, midi: number): number {
  let [sum, weights] = [0, 0];
  for (let n = 1; n <= ASTRAY.partials; n++) {
    const at = n * frequency(midi) * Math.sqrt(1 + STIFF * n * n);
    const wide = 2 ** (ASTRAY.halfSteps / 12);
    let peak = 0;
    for (
      let k = Math.max(1, Math.ceil(at / wide / bin));
      k <= (at * wide) / bin && k + 1 < magnitudes.length;
      k++
    )
      if (
        magnitudes[k]! > magnitudes[k - 1]! &&
        magnitudes[k]! >= magnitudes[k + 1]! &&
        (!peak || magnitudes[k]! > magnitudes[peak]!)
      )
        peak = k;
    if (!peak) continue;
    const [a, b, c] = [peak - 1, peak, peak + 1].map((k) => Math.log(magnitudes[k]! + 1e-12)) as [
      number,
      number,
      number,
    ];
    const hz = (peak + (a - c) / (2 * (a - 2 * b + c))) * bin;
    const weight = magnitudes[peak]! ** 2;
    sum += weight * 1200 * Math.log2(hz / at);
    weights += weight;
  }
  return weights ? sum / weights : 0;
}

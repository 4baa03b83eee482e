import { frequency } from '../note.ts';
import { centsOf, likeliest } from './salience.ts';
import { spectrumOf } from './spectrum.ts';

/** A string that sounds, as far as it is in tune. */
export interface Tuned {
  /** Which of the pitches it is nearest to, from 0. */
  readonly string: number;
  /** How far from it, in cents: 5 is a little sharp. */
  readonly cents: number;
  /** Its first partial, in Hz. */
  readonly hz: number;
}

/** What listens to one string at a time: what is heard now after some samples more, null where nothing is. */
export type Tuner = (samples: Float32Array) => Tuned | null;

/** How long is listened to, and how often it is looked at, in seconds; and how far from the strings pitches are looked for, in half steps. */
const HEARD = { window: 0.3, step: 0.08, around: 7 };
/** Softer than this, in root mean square from 0 to 1, and less of a tone than this part of what sounds, is no string. */
const QUIET = { rms: 0.0015, salience: 0.08 };

/**
 * What tells how far strings are from their pitches, MIDI numbers, at a rate in Hz. The first partial counts that a tuner shows.
 *
 * @example tunerOf(48000, [40])(new Float32Array(48000)) // null
 */
export function tunerOf(rate: number, pitches: readonly number[]): Tuner {
  const length = Math.round(HEARD.window * rate);
  const size = 2 ** Math.ceil(Math.log2(2 * length));
  const spectrum = spectrumOf(size);
  const bin = rate / size;
  const [low, high] = [Math.min(...pitches) - HEARD.around, Math.max(...pitches) + HEARD.around];
  let kept = new Float32Array(length);
  let waited = 0;
  let now: Tuned | null = null;
  return (samples) => {
    const next = new Float32Array(length);
    const more = samples.subarray(Math.max(0, samples.length - length));
    next.set(kept.subarray(more.length));
    next.set(more, length - more.length);
    kept = next;
    waited += samples.length;
    if (waited < HEARD.step * rate) return now;
    waited = 0;
    const rms = Math.sqrt(kept.reduce((sum, x) => sum + x * x, 0) / length);
    if (rms < QUIET.rms) return (now = null);
    const magnitudes = spectrum(kept, 0, length);
    const { midi, score } = likeliest(magnitudes, bin, low, high);
    if (score < QUIET.salience * Math.sqrt(rms)) return (now = null);
    const cents = centsOf(magnitudes, bin, midi);
    const pitch = midi + cents / 100;
    const string = pitches.reduce(
      (best, at, i) => (Math.abs(at - pitch) < Math.abs(pitches[best]! - pitch) ? i : best),
      0,
    );
    now = { string, cents: 100 * (pitch - pitches[string]!), hz: frequency(pitch) };
    return now;
  };
}

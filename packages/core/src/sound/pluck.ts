import { frequency } from '../note.ts';
import { seeded } from '../seeded.ts';

/** How a string sounds. */
export interface Voice {
  /** Where it is plucked, as a part of its length from the bridge: nearer is brighter. */
  readonly pluckedAt: number;
  /** How much of the pluck is noise, from 0 to 1. */
  readonly noise: number;
  /** Seconds until a string of 110 Hz is 60 dB softer; higher ones die away sooner. */
  readonly seconds: number;
}
export const VOICES = {
  guitar: { pluckedAt: 0.2, noise: 0.15, seconds: 5 },
  bass: { pluckedAt: 0.3, noise: 0.06, seconds: 7 },
} as const satisfies Readonly<Record<string, Voice>>;
export type VoiceName = keyof typeof VOICES;

/** Weights of a third-order Lagrange interpolation for a delay of 1 to 2 samples (Laakso and others, Splitting the unit delay, 1996). */
function lagrange(delay: number): readonly [number, number, number, number] {
  const d = delay;
  return [
    (-(d - 1) * (d - 2) * (d - 3)) / 6,
    (d * (d - 2) * (d - 3)) / 2,
    (-d * (d - 1) * (d - 3)) / 2,
    (d * (d - 1) * (d - 2)) / 6,
  ];
}

/**
 * A plucked string as samples from −1 to 1: a delay line as long as the wave, read between its samples, with a filter that takes the
 * high partials first (Karplus and Strong, 1983; fractional delay by Jaffe and Smith, 1983). The filter delays by half a sample,
 * which the line is shorter by. It begins with the shape of the pulled string, and some noise.
 *
 * @example pluck(45, 0.1, 1000).length // 100
 */
export function pluck(
  midi: number,
  seconds: number,
  rate: number,
  voice: VoiceName = 'guitar',
): Float32Array {
  const { pluckedAt, noise, seconds: decay } = VOICES[voice];
  const hz = frequency(midi);
  const delay = rate / hz - 0.5;
  const whole = Math.floor(delay) - 1;
  const [a, b, c, d] = lagrange(delay - whole);
  const lost = 10 ** (-3 / (hz * decay * Math.sqrt(110 / hz)));
  const out = new Float32Array(Math.ceil(seconds * rate));
  const first = Math.min(out.length, whole + 4);
  const chance = seeded(midi);
  const period = rate / hz;
  for (let i = 0; i < first; i++) {
    const at = (i % period) / period;
    const pulled = at < pluckedAt ? at / pluckedAt : (1 - at) / (1 - pluckedAt);
    out[i] = (1 - noise) * (pulled - 0.5) * 2 + noise * (chance() * 2 - 1);
  }
  let mean = 0;
  for (let i = 0; i < first; i++) mean += out[i]! / first;
  for (let i = 0; i < first; i++) out[i]! -= mean;
  const read = (i: number): number =>
    a * out[i - whole]! + b * out[i - whole - 1]! + c * out[i - whole - 2]! + d * out[i - whole - 3]!;
  let before = first >= whole + 4 ? read(first - 1 < whole + 3 ? whole + 3 : first - 1) : 0;
  let most = 0;
  for (let i = first; i < out.length; i++) {
    const now = read(i);
    out[i] = lost * 0.5 * (now + before);
    before = now;
  }
  for (const sample of out) most = Math.max(most, Math.abs(sample));
  for (let i = 0; i < out.length; i++) out[i]! *= 0.8 / most;
  return out;
}

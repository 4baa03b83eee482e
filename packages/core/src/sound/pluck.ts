import { frequency } from '../note.ts';
import { type Arrive } from '../run/run.ts';
import { seeded } from '../seeded.ts';

/** How an instrument is plucked. */
export interface Voice {
  /** Where the open string is plucked, as a part of its length from the bridge: nearer is brighter. */
  readonly pluckedAt: number;
  /** How much of the pluck is noise, from 0 to 1. */
  readonly noise: number;
  /** Above this frequency, in Hz, the plectrum or finger excites little. */
  readonly bright: number;
  /** How far the sound is driven, from 0: its lower partials carry it where a speaker has no bass. */
  readonly drive: number;
}
export const VOICES = {
  guitar: { pluckedAt: 0.18, noise: 0.12, bright: 3800, drive: 0 },
  bass: { pluckedAt: 0.12, noise: 0.05, bright: 2000, drive: 1.6 },
} as const satisfies Readonly<Record<string, Voice>>;
export type VoiceName = keyof typeof VOICES;

/** A note as a string sounds it. */
export interface Plucked {
  readonly midi: number;
  readonly voice: VoiceName;
  /** Where it is stopped: the higher, the shorter the string, and the nearer to its middle it is plucked. */
  readonly fret: number;
  /** A wound string is duller than a plain one. */
  readonly wound: boolean;
  readonly arrive: Arrive;
  /** Which rendering of it, from 0: no two strokes are alike. */
  readonly take: number;
}
/** So many renderings of a note are told apart. */
export const TAKES = 3;

/** How bright and how noisy each way of striking is beside a stroke of the plectrum, this project's own judgement. */
const STRUCK: Readonly<Record<Arrive, { readonly bright: number; readonly noise: number }>> = {
  pick: { bright: 1, noise: 1 },
  tap: { bright: 0.5, noise: 0.2 },
  hammer: { bright: 0.34, noise: 0.15 },
  pull: { bright: 0.26, noise: 0.5 },
  slide: { bright: 0.3, noise: 0.1 },
};
/** What a wound string keeps of the brightness. */
const WOUND = 0.7;

/** Seconds in which the fundamental of a pitch falls by 60 dB, measured on strings of common gauges (common practice, no source). */
const FALLS: readonly (readonly [midi: number, seconds: number])[] = [
  [28, 9],
  [35, 7],
  [40, 6],
  [64, 4],
  [76, 3],
  [88, 1.8],
];
/** In which partials at 2 kHz do, on every string. */
const HIGH = { hz: 2000, seconds: 1.7 } as const;

/** Seconds in which the fundamental of a pitch (MIDI number) falls by 60 dB. */
function fallOf(midi: number): number {
  const at = FALLS.findIndex(([m]) => m >= midi);
  if (at <= 0) return at === 0 ? FALLS[0]![1] : FALLS.at(-1)![1];
  const [[a, s], [b, t]] = [FALLS[at - 1]!, FALLS[at]!];
  return s + ((t - s) * (midi - a)) / (b - a);
}

/** What stays of a partial after one round of the loop filter y = g(1 − p)x + p·y′. */
const kept = (g: number, p: number, w: number): number =>
  (g * (1 - p)) / Math.sqrt(1 - 2 * p * Math.cos(w) + p * p);

/** The loop filter of a pitch: its pole and gain, and by how many samples it delays the fundamental. */
export interface Loop {
  readonly p: number;
  readonly g: number;
  readonly delay: number;
}
/**
 * The loop filter with which a pitch dies away as a string does: the pole is sought by halving, so that partials at 2 kHz fall in their
 * time beside the fundamental, and the gain follows from it.
 *
 * @example Math.round(100 * loopOf(40, 48000).p) // 39
 */
export function loopOf(midi: number, rate: number): Loop {
  const hz = frequency(midi);
  const w = (2 * Math.PI * hz) / rate;
  const high = (2 * Math.PI * HIGH.hz) / rate;
  const gain = (seconds: number): number => 10 ** (-3 / (hz * seconds));
  const wanted = gain(HIGH.seconds) / gain(fallOf(midi));
  let [low, top] = [0.02, 0.98];
  // Above 2 kHz there are no partials below to compare with: next to nothing is taken from the high ones.
  if (hz < HIGH.hz && wanted < 1)
    for (let i = 0; i < 40; i++) {
      const p = (low + top) / 2;
      if (kept(1, p, high) / kept(1, p, w) > wanted) low = p;
      else top = p;
    }
  const p = low;
  return {
    p,
    g: Math.min(0.99999, gain(fallOf(midi)) / kept(1, p, w)),
    delay: Math.atan2(p * Math.sin(w), 1 - p * Math.cos(w)) / w,
  };
}

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

/** The loudest that a rendering is, and by how much takes differ at most, in dB. */
const LOUDEST = 0.8;
const UNEVEN_DB = 0.6;

/**
 * A plucked string as samples from −1 to 1: a delay line as long as the wave, read between its samples, with a one-pole filter that
 * takes the high partials first (Karplus and Strong, 1983; fractional delay by Jaffe and Smith, 1983). The line is shorter by what the
 * filter delays. It begins with how a pulled string moves that is let go, and some noise, as dull as what strikes it.
 *
 * @example pluck({ midi: 45, voice: 'guitar', fret: 5, wound: true, arrive: 'pick', take: 0 }, 0.1, 1000).length // 100
 */
export function pluck(
  { midi, voice, fret, wound, arrive, take }: Plucked,
  seconds: number,
  rate: number,
): Float32Array {
  const { pluckedAt: open, noise, bright, drive } = VOICES[voice];
  const { p, g, delay: filtered } = loopOf(midi, rate);
  const period = rate / frequency(midi);
  const delay = period - filtered;
  const whole = Math.floor(delay) - 1;
  const [a, b, c, d] = lagrange(delay - whole);
  const out = new Float32Array(Math.ceil(seconds * rate));
  const first = Math.min(out.length, whole + 4);
  const chance = seeded(midi * 1000 + fret * 10 + take);
  const by = STRUCK[arrive];
  // The plectrum stays where it is as the string gets shorter; and it is never twice in the same place.
  const pluckedAt = Math.min(0.5, open * 2 ** (fret / 12) * (0.94 + 0.12 * chance()));
  const dull = Math.exp((-2 * Math.PI * bright * by.bright * (wound ? WOUND : 1)) / rate);
  const part = Math.min(0.6, noise * by.noise);
  const level = 10 ** ((-UNEVEN_DB * chance()) / 20);
  // Two rounds, so that the filter has come to rest in the wave.
  let once = 0;
  let twice = 0;
  for (let i = -first; i < first; i++) {
    const at = ((((i + first) % period) + period) / period) % 1;
    // What a pickup hears of a pulled string that is let go: how fast it moves, in one direction up to where it was pulled.
    const pulled = at < pluckedAt ? 1 - pluckedAt : -pluckedAt;
    const struck = (1 - part) * pulled + part * (chance() - 0.5);
    once = (1 - dull) * struck + dull * once;
    twice = (1 - dull) * once + dull * twice;
    if (i >= 0) out[i] = twice;
  }
  let mean = 0;
  for (let i = 0; i < first; i++) mean += out[i]! / first;
  for (let i = 0; i < first; i++) out[i]! -= mean;
  let before = 0;
  for (let i = first; i < out.length; i++) {
    const now =
      a * out[i - whole]! + b * out[i - whole - 1]! + c * out[i - whole - 2]! + d * out[i - whole - 3]!;
    before = g * (1 - p) * now + p * before;
    out[i] = before;
  }
  let most = 0;
  for (const sample of out) most = Math.max(most, Math.abs(sample));
  const scale = most ? 1 / most : 0;
  for (let i = 0; i < out.length; i++) {
    const sample = out[i]! * scale;
    out[i] = LOUDEST * level * (drive ? Math.tanh(drive * sample) / Math.tanh(drive) : sample);
  }
  return out;
}

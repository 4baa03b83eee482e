import { type Arrive, bentAt, type Held } from '@crow-ladder/core/run';
import { LOUD, STRING_TIMES } from '@crow-ladder/core/sound';

/** A note as it is to be heard, in seconds of the audio clock. */
export interface Note {
  readonly buffer: AudioBuffer;
  readonly arrive: Arrive;
  /** Of a slide, by how many frets the finger comes, negative from above, all of them sounding on the way; 0 where it does not slide. */
  readonly slide: number;
  /** How it is bent and held. */
  readonly held: Held;
  /** How loud beside the others; an accent is more than 1. */
  readonly loud: number;
  readonly at: number;
  readonly until: number;
}

/** How long a damped string is heard, in seconds. */
const TAIL = 0.2;
/** When the string is left for a slide that arrives at a time: before it, so that it arrives on it. */
export const leavesAt = (at: number): number => at - STRING_TIMES.slide;
/** How often the way of a bend is looked up, a second. */
const BENT_HZ = 500;
/** How much faster than at its fret a bent note sounds, over its seconds; null where it is neither bent nor wavers. */
function ratesOf(held: Held, seconds: number): Float32Array | null {
  if (!(held.bend ?? held.vibrato)) return null;
  const many = Math.ceil(seconds * BENT_HZ) + 1;
  return Float32Array.from(
    { length: many },
    (_, i) => 2 ** (bentAt(held, (i * seconds) / (many - 1), seconds) / 12),
  );
}
/** Has a note sound; the source can be stopped before it does. */
export function soundNote(
  ctx: BaseAudioContext,
  out: AudioNode,
  { buffer, arrive, slide, held, loud, at, until }: Note,
): AudioScheduledSourceNode {
  const source = new AudioBufferSourceNode(ctx, { buffer });
  const level = new GainNode(ctx, { gain: 0 });
  const slurred = arrive !== 'pick' && arrive !== 'tap';
  // A slide has left before the beat and goes over every fret, so that it is there on it.
  const begins = slide ? Math.max(ctx.currentTime, leavesAt(at)) : at;
  if (slide)
    for (let left = Math.abs(slide); left >= 0; left--)
      source.playbackRate.setValueAtTime(
        2 ** ((-Math.sign(slide) * left) / 12),
        begins + (at - begins) * (1 - left / Math.abs(slide)),
      );
  const rates = ratesOf(held, until - at);
  if (rates) source.playbackRate.setValueCurveAtTime(rates, Math.max(ctx.currentTime, at), until - at);
  const height = LOUD[arrive] * loud;
  level.gain.setValueAtTime(slurred ? 0 : height, begins);
  if (slurred) level.gain.linearRampToValueAtTime(height, begins + STRING_TIMES.slur);
  level.gain.setTargetAtTime(0, until, STRING_TIMES.damp);
  source.connect(level).connect(out);
  source.start(begins);
  source.stop(until + TAIL);
  return source;
}

/** A step at full scale that nothing goes over: below a half sounds pass as they are, above it ever less is added. */
export function limiter(ctx: BaseAudioContext): AudioNode {
  const [points, knee] = [2049, 0.5];
  const curve = Float32Array.from({ length: points }, (_, i) => {
    const x = ((2 * i) / (points - 1) - 1) * WIDEST;
    const over = Math.max(0, Math.abs(x) - knee);
    return Math.sign(x) * (Math.min(Math.abs(x), knee) + (1 - knee) * Math.tanh(over / (1 - knee)) * 0.98);
  });
  const into = new GainNode(ctx, { gain: 1 / WIDEST });
  const shaper = new WaveShaperNode(ctx, { curve });
  into.connect(shaper);
  shaper.connect(ctx.destination);
  return into;
}
/** The curve is drawn up to so many times full scale; what is louder ends as that does. */
const WIDEST = 8;

/** Partials of a drone, from the first: a soft sound that leaves room for the strings. */
const PARTIALS = [0, 1, 0.45, 0.3, 0.14, 0.08, 0.05];
const DRONE = { rise: 0.6, fall: 0.25, loud: 0.09 };
/** Has pitches sound, in Hz, until they are stopped. */
export function soundDrone(
  ctx: BaseAudioContext,
  out: AudioNode,
  pitches: readonly number[],
): { readonly stop: () => void } {
  const level = new GainNode(ctx, { gain: 0 });
  const wave = ctx.createPeriodicWave(new Float32Array(PARTIALS.length), Float32Array.from(PARTIALS));
  level.gain.setTargetAtTime(DRONE.loud, ctx.currentTime, DRONE.rise / 3);
  level.connect(out);
  const voices = pitches.map((frequency) => {
    const voice = new OscillatorNode(ctx, { frequency, periodicWave: wave });
    voice.connect(level);
    voice.start();
    return voice;
  });
  return {
    stop: () => {
      level.gain.setTargetAtTime(0, ctx.currentTime, DRONE.fall / 3);
      for (const voice of voices) voice.stop(ctx.currentTime + DRONE.fall * 2);
    },
  };
}

const CLICK = { seconds: 0.04, accent: 1760, beat: 1175, loud: 0.5 };
/** The pitches of the clicks, MIDI numbers: A6 and D6. */
export const CLICK_PITCHES = { accent: 93, beat: 86 } as const;
/** The two clicks of the metronome. */
export function clicksFor(ctx: BaseAudioContext): {
  readonly accent: AudioBuffer;
  readonly beat: AudioBuffer;
} {
  const click = (hz: number): AudioBuffer => {
    const length = Math.ceil(CLICK.seconds * ctx.sampleRate);
    const samples = Float32Array.from({ length }, (_, i) => {
      const t = i / ctx.sampleRate;
      return CLICK.loud * Math.sin(2 * Math.PI * hz * t) * Math.exp(-t * 120);
    });
    const buffer = ctx.createBuffer(1, length, ctx.sampleRate);
    buffer.copyToChannel(samples, 0);
    return buffer;
  };
  return { accent: click(CLICK.accent), beat: click(CLICK.beat) };
}

export function soundClick(
  ctx: BaseAudioContext,
  out: AudioNode,
  buffer: AudioBuffer,
  at: number,
): AudioScheduledSourceNode {
  const source = new AudioBufferSourceNode(ctx, { buffer });
  source.connect(out);
  source.start(at);
  return source;
}

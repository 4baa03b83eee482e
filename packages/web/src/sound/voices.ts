import { type Arrive } from '@crow-ladder/core/run';

/** A note as it is to be heard, in seconds of the audio clock. */
export interface Note {
  readonly buffer: AudioBuffer;
  readonly arrive: Arrive;
  /** By how much the string sounded otherwise before a slide: the frequency of before by that of now; 1 where there is none. */
  readonly slidFrom: number;
  readonly at: number;
  readonly until: number;
}

/** How long a slide takes, how soon a slurred note is there, and how a string is damped, in seconds. */
const TIMES = { slide: 0.06, slur: 0.008, damp: 0.02, tail: 0.2 };
/** How loud notes are that are not picked. */
const LOUD: Readonly<Record<Arrive, number>> = { pick: 1, tap: 0.85, hammer: 0.7, pull: 0.65, slide: 0.65 };
/** The noise of the plectrum at the beginning of a sound, in seconds: slurred notes begin after it. */
const PLECTRUM = 0.02;

/** Has a note sound; the source can be stopped before it does. */
export function soundNote(
  ctx: BaseAudioContext,
  out: AudioNode,
  { buffer, arrive, slidFrom, at, until }: Note,
): AudioScheduledSourceNode {
  const source = new AudioBufferSourceNode(ctx, { buffer });
  const level = new GainNode(ctx, { gain: 0 });
  const slurred = arrive !== 'pick' && arrive !== 'tap';
  if (slidFrom !== 1) {
    source.playbackRate.setValueAtTime(slidFrom, at);
    source.playbackRate.exponentialRampToValueAtTime(1, Math.min(until, at + TIMES.slide));
  }
  level.gain.setValueAtTime(slurred ? 0 : LOUD[arrive], at);
  if (slurred) level.gain.linearRampToValueAtTime(LOUD[arrive], at + TIMES.slur);
  level.gain.setTargetAtTime(0, until, TIMES.damp);
  source.connect(level).connect(out);
  source.start(at, slurred ? PLECTRUM : 0);
  source.stop(until + TIMES.tail);
  return source;
}

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

import {
  type AskedRound,
  type HeardNote,
  type HeardRound,
  plainNote,
  type PitchRange,
  type SoundingNote,
  type Tuned,
} from '@crow-ladder/core/listening';
import { type NoteEvent, type Run } from '@crow-ladder/core/run';
import { type Plucked, type Strung } from '@crow-ladder/core/sound';
import { proxy, type Remote, transfer, wrap } from 'comlink';
import { type EarWorker, type Level } from '../workers/listening.ts';
import { type Heeded, type Microphone } from './source.ts';
import tapUrl from '../workers/tap.ts?worker&url';

/** A pass that a stand-in is to play. */
export interface StandInPass {
  readonly pass: number;
  readonly run: Run;
  readonly notes: readonly NoteEvent[];
  /** Seconds of its schedule. */
  readonly end: number;
}

/** What listens while something is played. */
export interface Listening {
  /** Seconds of the audio clock from which its times count. */
  readonly base: number;
  readonly ask: (round: AskedRound) => void;
  /** Has the stand-in play a pass whose schedule begins at a time of the audio clock. */
  readonly play: (pass: StandInPass, origin: number) => void;
  readonly stop: () => void;
}

interface Told {
  readonly onRounds: (rounds: readonly HeardRound[]) => void;
  readonly onLevel: (level: Level) => void;
}

/** How long the last of some notes of a stand-in is heard after its end, in seconds. */
const NOTE_RINGS = 0.2;
/** How often what a stand-in plays is handed on, in ms, and how long its last note rings on, in seconds. */
const FEED_MS = 60;
const RING = 0.8;
/** How loud it is heard, beside the notes and the click. */
const LOUD = 0.5;

/** The worker of this page that listens, made when something is listened to first. */
let worker: Remote<EarWorker> | null = null;
const ears = (): Remote<EarWorker> =>
  (worker ??= wrap<EarWorker>(new Worker(new URL('../workers/ear.ts', import.meta.url), { type: 'module' })));

/** Contexts that know the tap already. */
const knowing = new WeakMap<BaseAudioContext, Promise<void>>();
function tapped(ctx: AudioContext): Promise<void> {
  const known = knowing.get(ctx) ?? ctx.audioWorklet.addModule(tapUrl);
  knowing.set(ctx, known);
  known.catch(() => knowing.delete(ctx));
  return known;
}

/** A microphone whose samples go to a port, until that is ended. */
function tapOn(
  ctx: AudioContext,
  { stream }: Microphone,
  channel: number,
): { readonly port: MessagePort; readonly end: () => void } {
  const { port1, port2 } = new MessageChannel();
  const source = new MediaStreamAudioSourceNode(ctx, { mediaStream: stream });
  const tap = new AudioWorkletNode(ctx, 'tap', { numberOfOutputs: 1 });
  tap.port.postMessage({ to: port1, channel }, [port1]);
  // A worklet that leads nowhere is not run; it gives silence on.
  source.connect(tap).connect(ctx.destination);
  return {
    port: port2,
    end: () => {
      source.disconnect();
      tap.port.postMessage('end');
      tap.disconnect();
    },
  };
}

/** How long a string of the stand-in sounds, in seconds, and what tells it from others that sound. */
const STRING_SECONDS = 4;
const STRING = 1;

/** What tunes strings. */
export interface Tuning {
  /** Has the stand-in pluck a string, so many cents away; nothing where there is a guitar. */
  readonly pluck: (sounds: Plucked, cents: number) => void;
  readonly stop: () => void;
}

/** Tunes strings, of a microphone or a stand-in. */
export async function tune(
  ctx: AudioContext,
  to: Heeded,
  pitches: readonly number[],
  onTuned: (tuned: Tuned | null) => void,
): Promise<Tuning> {
  const told = proxy(onTuned);
  if (to.kind === 'microphone') {
    await tapped(ctx);
    const { port, end } = tapOn(ctx, to.microphone, to.channel);
    await ears().tune(ctx.sampleRate, pitches, transfer(port, [port]), told);
    return { pluck: () => undefined, stop: end };
  }
  await ears().tune(ctx.sampleRate, pitches, null, told);
  const mixed = mixing(ctx, 1, Math.round(ctx.currentTime * ctx.sampleRate));
  return {
    stop: mixed.end,
    pluck: (sounds, cents) => {
      void ears()
        .sounds([plainNote(sounds, 0, STRING_SECONDS)], cents, STRING_SECONDS, ctx.sampleRate)
        .then((samples) => mixed.add(STRING, samples, ctx.currentTime));
    },
  };
}

/** What follows notes as they come. */
export interface Following {
  /** Seconds of the audio clock from which its times count. */
  readonly base: number;
  readonly await: (midi: number) => void;
  /** Has the stand-in play notes, and hears them: their times are in seconds from now, or from one of the audio clock; nothing where there is a guitar. */
  readonly play: (notes: readonly SoundingNote[], from?: number) => void;
  readonly stop: () => void;
}

/** Follows notes as they come, of a microphone or a stand-in. */
export async function follow(
  ctx: AudioContext,
  to: Heeded,
  range: PitchRange,
  onNotes: (notes: readonly HeardNote[]) => void,
  onLevel: (level: Level) => void,
): Promise<Following> {
  const rate = ctx.sampleRate;
  const from = Math.round(ctx.currentTime * rate);
  const told = [proxy(onNotes), proxy(onLevel)] as const;
  const on = {
    base: from / rate,
    await: (midi: number): void => void ears().await(midi),
    play: (): void => undefined,
  };
  if (to.kind === 'microphone') {
    await tapped(ctx);
    const { port, end } = tapOn(ctx, to.microphone, to.channel);
    await ears().follow(rate, range, from, transfer(port, [port]), ...told);
    return { ...on, stop: end };
  }
  await ears().follow(rate, range, from, null, ...told);
  const mixed = mixing(ctx, LOUD, from);
  return {
    ...on,
    play: (notes, at) => {
      const lasts = Math.max(...notes.map(({ until }) => until)) + NOTE_RINGS;
      void ears()
        .sounds(notes, 0, lasts, rate)
        .then((samples) => mixed.add(0, samples, at ?? ctx.currentTime));
    },
    stop: mixed.end,
  };
}

/** Sounds of a stand-in, as loud as they are heard, handed on to what listens by the clock. */
function mixing(ctx: AudioContext, loud: number, from: number) {
  const out = new GainNode(ctx, { gain: loud });
  out.connect(ctx.destination);
  const rate = ctx.sampleRate;
  let next = from;
  let sounding: {
    readonly id: number;
    readonly at: number;
    readonly samples: Float32Array;
    readonly source: AudioBufferSourceNode;
    until: number;
  }[] = [];
  const feed = (): void => {
    const to = Math.floor(ctx.currentTime * rate);
    if (to <= next) return;
    const block = new Float32Array(to - next);
    for (const { at, samples, until } of sounding)
      for (let i = Math.max(0, at - next); i < block.length && next + i < until; i++) {
        const sample = samples[next + i - at];
        if (sample === undefined) break;
        block[i]! += sample;
      }
    void ears().hear(next, block);
    next = to;
    sounding = sounding.filter(({ at, samples, until }) => Math.min(at + samples.length, until) > next);
  };
  const timer = setInterval(feed, FEED_MS);
  let ended = false;
  return {
    /** Sounds from a time of the audio clock on; in place of what sounds by the same number, where that is not 0. */
    add: (id: number, samples: Float32Array, origin: number): void => {
      if (ended) return;
      const buffer = ctx.createBuffer(1, samples.length, rate);
      buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, 0);
      const source = new AudioBufferSourceNode(ctx, { buffer });
      source.connect(out);
      const begins = Math.max(origin, ctx.currentTime);
      source.start(begins, begins - origin);
      for (const before of sounding)
        if (id && before.id === id) {
          before.until = Math.round(begins * rate);
          before.source.stop(begins);
        }
      sounding.push({ id, at: Math.round(origin * rate), samples, source, until: Infinity });
    },
    end: (): void => {
      ended = true;
      clearInterval(timer);
      for (const { source } of sounding) source.stop();
      out.disconnect();
    },
  };
}

/** Listens to rounds, of a microphone or of a stand-in, which is heard as well; that makes what it plays `first` of before it begins. */
export async function listenTo(
  ctx: AudioContext,
  to: Heeded,
  strung: Strung,
  range: PitchRange,
  first: StandInPass,
  { onRounds, onLevel }: Told,
): Promise<Listening> {
  const rate = ctx.sampleRate;
  const ask = (round: AskedRound): void => void ears().ask(round);
  const begin = async (port: MessagePort | null, from: number): Promise<void> =>
    ears().begin(rate, range, from, port && transfer(port, [port]), proxy(onRounds), proxy(onLevel));
  if (to.kind === 'microphone') {
    await tapped(ctx);
    const from = Math.round(ctx.currentTime * rate);
    const { port, end } = tapOn(ctx, to.microphone, to.channel);
    await begin(port, from);
    return { base: from / rate, ask, play: () => undefined, stop: end };
  }
  const { faults } = to;
  const made = new Map<string, Promise<Float32Array>>();
  /** What it plays of a pass, made once, and earlier than it is heard. */
  const soundOf = ({ pass, run, notes, end }: StandInPass): Promise<Float32Array> => {
    const id = `${pass} ${end}`;
    const seconds = end * faults.tempo + RING + faults.delay / 1000;
    const known = made.get(id) ?? ears().standIn(run, notes, strung, faults, pass + 1, seconds, rate);
    made.set(id, known);
    return known;
  };
  await soundOf(first);
  const from = Math.round(ctx.currentTime * rate);
  await begin(null, from);
  const mixed = mixing(ctx, LOUD, from);
  return {
    base: from / rate,
    ask,
    play: (pass, origin) => {
      // What it played of this pass in other times ends where this begins.
      void soundOf(pass).then((samples) => {
        made.delete(`${pass.pass} ${pass.end}`);
        mixed.add(pass.pass + 1, samples, origin);
      });
    },
    stop: mixed.end,
  };
}

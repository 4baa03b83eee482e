import {
  type AskedRound,
  type Ear,
  earOf,
  type Faults,
  type HeardNote,
  type HeardRound,
  type Listener,
  listener,
  type PitchRange,
  standInPlays,
  FAULTLESS,
  standInSounds,
  type Tuned,
  type Tuner,
  tunerOf,
} from '@crow-ladder/core/listening';
import { type NoteEvent, type Run } from '@crow-ladder/core/run';
import { type Strung } from '@crow-ladder/core/sound';
import { expose, transfer } from 'comlink';
import { type EarWorker, type Level } from './listening.ts';

/** A piece of sound, and the frame of the audio clock that it begins at. */
interface Block {
  readonly first: number;
  readonly samples: Float32Array;
}

/** How often it is told how loud it is, in seconds. */
const LEVEL_EVERY = 0.1;

let ear: Ear | null = null;
/** What listens to notes as they come, and the pitches that are waited for. */
let following: {
  readonly listener: Listener;
  readonly onNotes: (notes: readonly HeardNote[]) => void;
} | null = null;
let awaited: readonly number[] = [];
let rate = 48_000;
let onRounds: (rounds: readonly HeardRound[]) => void = () => undefined;
let onLevel: (level: Level) => void = () => undefined;
/** The frame that listening began at, and the one that comes next. */
let began: number | null = null;
let next = 0;
let loud = { sum: 0, most: 0, many: 0 };

let tuner: Tuner | null = null;
let onTuned: (tuned: Tuned | null) => void = () => undefined;

function hear({ first, samples }: Block): void {
  if (tuner) return onTuned(tuner(samples));
  if (!ear && !following) return;
  if (began === null) began = next = first;
  // What the browser left out is silence.
  const left = new Float32Array(Math.max(0, Math.min(first - next, rate)));
  next = first + samples.length;
  if (ear) {
    const rounds = [...ear.hear(left), ...ear.hear(samples)];
    if (rounds.length) onRounds(rounds);
  }
  if (following) {
    const notes = [...following.listener.hear(left), ...following.listener.hear(samples)];
    if (notes.length) following.onNotes(notes);
  }
  for (const sample of samples) {
    loud.sum += sample * sample;
    loud.most = Math.max(loud.most, Math.abs(sample));
  }
  loud.many += samples.length;
  if (loud.many < LEVEL_EVERY * rate) return;
  onLevel({ rms: Math.sqrt(loud.sum / loud.many), peak: loud.most, at: next / rate });
  loud = { sum: 0, most: 0, many: 0 };
}

const worker: EarWorker = {
  begin: (
    at: number,
    range: Omit<PitchRange, 'due'>,
    from: number,
    port: MessagePort | null,
    rounds,
    level,
  ) => {
    rate = at;
    ear = earOf(at, range);
    tuner = following = null;
    began = next = from;
    onRounds = rounds;
    onLevel = level;
    if (port) port.onmessage = ({ data }: MessageEvent<Block>) => hear(data);
  },
  ask: (round: AskedRound) => {
    ear?.ask(round);
  },
  hear: (first, samples) => hear({ first, samples }),
  tune: (at, pitches, port, told) => {
    tuner = tunerOf(at, pitches);
    ear = following = null;
    onTuned = told;
    if (port) port.onmessage = ({ data }: MessageEvent<Block>) => hear(data);
  },
  follow: (at, range, from, port, onNotes, told) => {
    rate = at;
    awaited = [];
    following = { listener: listener(at, { ...range, due: () => awaited }), onNotes };
    ear = tuner = null;
    began = next = from;
    onLevel = told;
    if (port) port.onmessage = ({ data }: MessageEvent<Block>) => hear(data);
  },
  await: (midi) => {
    awaited = [midi];
  },
  sounds: (notes, cents, seconds, at) => {
    const samples = standInSounds(notes, { ...FAULTLESS, detuned: cents }, seconds, at, 1);
    return transfer(samples, [samples.buffer]);
  },
  standIn: (
    run: Run,
    notes: readonly NoteEvent[],
    strung: Strung,
    faults: Faults,
    seed: number,
    seconds: number,
    at: number,
  ) => {
    const samples = standInSounds(standInPlays(run, notes, strung, faults, seed), faults, seconds, at, seed);
    return transfer(samples, [samples.buffer]);
  },
};
expose(worker);

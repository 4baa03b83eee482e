import {
  type Ear,
  earOf,
  FAULTLESS,
  listener,
  standInPlays,
  standInSounds,
  tunerOf,
} from '@crow-ladder/core/listening';
import { expose, transfer } from 'comlink';
import { type EarWorker, type Level } from './listening.ts';

/** A piece of sound, and the frame of the audio clock that it begins at. */
interface Block {
  readonly first: number;
  readonly samples: Float32Array;
}

/** How often it is told how loud it is, in seconds. */
const LEVEL_EVERY = 0.1;

/** What listens now: only one thing does. */
let hear: (block: Block) => void = () => undefined;
/** What hears rounds, where that listens, and the pitches that are waited for, where notes are followed. */
let ear: Ear | null = null;
let awaited: readonly number[] = [];

/** Has blocks come by a port as well, where there is one. */
function by(port: MessagePort | null): void {
  if (port) port.onmessage = ({ data }: MessageEvent<Block>) => hear(data);
}

/** Hands samples on from a frame of the audio clock, what the browser left out as silence, and tells how loud they are. */
function listening(
  rate: number,
  from: number,
  take: (samples: Float32Array) => void,
  onLevel: (level: Level) => void,
): typeof hear {
  let next = from;
  let loud = { sum: 0, most: 0, many: 0 };
  return ({ first, samples }) => {
    if (first > next) take(new Float32Array(Math.min(first - next, rate)));
    take(samples);
    next = first + samples.length;
    for (const sample of samples) {
      loud.sum += sample * sample;
      loud.most = Math.max(loud.most, Math.abs(sample));
    }
    loud.many += samples.length;
    if (loud.many < LEVEL_EVERY * rate) return;
    onLevel({ rms: Math.sqrt(loud.sum / loud.many), peak: loud.most, at: next / rate });
    loud = { sum: 0, most: 0, many: 0 };
  };
}

const handed = (samples: Float32Array): Float32Array => transfer(samples, [samples.buffer]);

const worker: EarWorker = {
  begin: (rate, range, from, port, onRounds, onLevel) => {
    const now = (ear = earOf(rate, range));
    const take = (samples: Float32Array): void => {
      const rounds = now.hear(samples);
      if (rounds.length) onRounds(rounds);
    };
    hear = listening(rate, from, take, onLevel);
    by(port);
  },
  ask: (round) => ear?.ask(round),
  hear: (first, samples) => hear({ first, samples }),
  tune: (rate, pitches, port, onTuned) => {
    const tuner = tunerOf(rate, pitches);
    hear = ({ samples }) => onTuned(tuner(samples));
    by(port);
  },
  follow: (rate, range, from, port, onNotes, onLevel) => {
    awaited = [];
    const now = listener(rate, { ...range, due: () => awaited });
    const take = (samples: Float32Array): void => {
      const notes = now.hear(samples);
      if (notes.length) onNotes(notes);
    };
    hear = listening(rate, from, take, onLevel);
    by(port);
  },
  await: (midi) => {
    awaited = [midi];
  },
  sounds: (notes, cents, seconds, rate) =>
    handed(standInSounds(notes, { ...FAULTLESS, detuned: cents }, seconds, rate, 1)),
  standIn: (run, notes, strung, faults, seed, seconds, rate) =>
    handed(standInSounds(standInPlays(run, notes, strung, faults, seed), faults, seconds, rate, seed)),
};
expose(worker);

import {
  type AskedRound,
  type Faults,
  type HeardNote,
  type HeardRound,
  type PitchRange,
  type SoundingNote,
  type Tuned,
} from '@crow-ladder/core/listening';
import { type NoteEvent, type Run } from '@crow-ladder/core/run';
import { type Strung } from '@crow-ladder/core/sound';

/** How loud what comes in is, from 0 to 1, at a time of the audio clock in seconds. */
export interface Level {
  readonly rms: number;
  readonly peak: number;
  readonly at: number;
}

/** What listens, away from the page. */
export interface EarWorker {
  /** Begins to listen at a rate in Hz and a frame of the audio clock; blocks come by the port, or by `hear`. */
  readonly begin: (
    rate: number,
    range: PitchRange,
    from: number,
    port: MessagePort | null,
    onRounds: (rounds: readonly HeardRound[]) => void,
    onLevel: (level: Level) => void,
  ) => void;
  /** Asks for a round; its times are in seconds from where listening began. */
  readonly ask: (round: AskedRound) => void;
  readonly hear: (first: number, samples: Float32Array) => void;
  /** Listens to one string at a time instead, beside its pitches. */
  readonly tune: (
    rate: number,
    pitches: readonly number[],
    port: MessagePort | null,
    onTuned: (tuned: Tuned | null) => void,
  ) => void;
  /** Listens to notes as they come instead, whenever that is. */
  readonly follow: (
    rate: number,
    range: PitchRange,
    from: number,
    port: MessagePort | null,
    onNotes: (notes: readonly HeardNote[]) => void,
    onLevel: (level: Level) => void,
  ) => void;
  /** Which pitch is waited for: a wrong one is looked for around it. */
  readonly await: (midi: number) => void;
  /** What notes sound like, out of tune by cents, as samples at a rate in Hz. */
  readonly sounds: (
    notes: readonly SoundingNote[],
    cents: number,
    seconds: number,
    rate: number,
  ) => Float32Array;
  /** What a stand-in plays of a run, as samples at a rate in Hz. */
  readonly standIn: (
    run: Run,
    notes: readonly NoteEvent[],
    strung: Strung,
    faults: Faults,
    seed: number,
    seconds: number,
    rate: number,
  ) => Float32Array;
}

import { type Key, type Neck, type Result } from '@crow-ladder/core';
import { type Clef } from '@crow-ladder/core/notation';
import { type Run, type Step } from '@crow-ladder/core/run';
import { type FileRead } from './found.ts';
import { type Named } from './named.ts';

/** Music as it is written into a file. */
export interface Music {
  readonly title: string;
  /** In the order of play; rests are gaps. */
  readonly run: Run;
  /** When it ends, its last rests too, in ticks from its beginning. */
  readonly ticks: number;
  /** Its open strings sound with the capo. */
  readonly neck: Neck;
  /** Fret of the capo, 0 without one. */
  readonly capo: number;
  readonly key: Key;
  /** Quarter notes a bar. */
  readonly beats: number;
  /** Quarter notes a minute. */
  readonly tempo: number;
  /** The clef that the instrument is usually written in. */
  readonly clef: Clef;
}

/** A file as it was written. */
export interface Written {
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** What of the music the format cannot carry, a sentence each. */
  readonly lost: readonly string[];
}

/** A sentence for what a format lacks, where some note of the music has it. */
export const without = (run: Run, has: (step: Step) => unknown, said: string): readonly string[] =>
  run.some(has) ? [said] : [];

/** How long notes of a text are that tells no times: all alike, or by how far they stand apart. */
export interface Untimed {
  /** In ticks; spaced, that of the notes that stand nearest to each other. */
  readonly length: number;
  readonly spaced: boolean;
}
/** What a reader may ask of whoever has it read. */
export interface ReadOptions {
  /** Open strings that are assumed where a file has as many and tells none, in MIDI numbers, string 1 first. */
  readonly open?: readonly number[] | undefined;
  readonly untimed?: Untimed | undefined;
  /** Told how far reading is, from 0 to 1. */
  readonly onProgress?: ((done: number) => void) | undefined;
}

/** An open format for music. */
export interface FormatOf extends Named {
  readonly write: (music: Music) => Written;
  /** Refused with a place in the file where it cannot be read; never throws. */
  readonly read: (bytes: Uint8Array, options?: ReadOptions) => Result<FileRead>;
}

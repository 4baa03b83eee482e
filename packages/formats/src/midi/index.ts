import { type FormatOf } from '../format.ts';
import { NAMED } from '../named.ts';
import { readMidiFile } from './read.ts';
import { writeMidiFile } from './write.ts';

/** Standard MIDI file, type 1. */
export const midiFormat = {
  ...NAMED.midi,
  write: writeMidiFile,
  read: readMidiFile,
} satisfies FormatOf;

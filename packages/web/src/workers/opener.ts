import { ok, refuse } from '@crow-ladder/core';
import { FILE_LIMITS, type FileRead, readFile, tooBig } from '@crow-ladder/formats';
import { expose } from 'comlink';
import { type Opener, summaryOf, takenHere, type Told } from './opened.ts';

/** At most so often a second is progress told. */
const TELL_MS = 100;
const seldom = (tell: Told): Told => {
  let last = 0;
  return (done) => {
    const now = Date.now();
    if (now - last < TELL_MS) return;
    last = now;
    tell(done);
  };
};

let file: FileRead | null = null;
/** Reads files away from the page and keeps the last one; a line of it is taken as a phrase. */
const opener: Opener = {
  open(given, open, untimed, onProgress) {
    file = null;
    if (given.size > FILE_LIMITS.bytes) return tooBig(given.size);
    const read = readFile(given.name, given.bytes, { open, untimed, onProgress: seldom(onProgress) });
    if (!read.ok) return read;
    file = read.value;
    return ok(summaryOf(given.name, given.bytes, file));
  },
  take(choice, ground, accidentals, onNote) {
    return file
      ? takenHere(file, choice, ground, accidentals, seldom(onNote))
      : refuse('file.gone', 'Open the file again.');
  },
};
expose(opener);

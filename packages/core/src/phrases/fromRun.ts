import { type Joined } from '../plan/task.ts';
import { presses, type Arrive, type Run } from '../run/run.ts';
import { PHRASE_LIMITS, type PhraseNote } from './phrase.ts';

const JOINED: Readonly<Record<Arrive, Joined | undefined>> = {
  pick: undefined,
  hammer: 'slur',
  pull: 'slur',
  slide: 'slide',
  tap: 'tap',
};

/**
 * Notes of a run as a phrase, from its first note, gaps as rests, with the fingers that it has: so they stay those that were taught. The first 500 of them.
 *
 * @example notesOfRun(run.slice(0, 2)).map((n) => n.finger) // [1,4]
 */
export function notesOfRun(run: Run): readonly PhraseNote[] {
  const notes: PhraseNote[] = [];
  let at = run[0]?.start ?? 0;
  run.forEach(({ spot: { string, fret }, finger, arrive, bend, vibrato, accent, start, length }, i) => {
    if (start > at) notes.push({ at: null, length: start - at });
    const joined = i > 0 || arrive === 'tap' ? JOINED[arrive] : undefined;
    notes.push({
      at: { string, fret },
      length,
      ...(joined && { joined }),
      ...(bend && { bend }),
      ...(vibrato && { vibrato }),
      ...(accent && { accent }),
      ...(presses(finger) && { finger }),
    });
    at = start + length;
  });
  return notes.slice(0, PHRASE_LIMITS.notes);
}

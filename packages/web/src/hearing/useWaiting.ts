import { plural } from '@crow-ladder/core';
import { plainNote, standInPlays } from '@crow-ladder/core/listening';
import { type Run, type Schedule } from '@crow-ladder/core/run';
import { soundOf, type Strung } from '@crow-ladder/core/sound';
import { useCallback, useEffect, useRef, useState } from 'react';
import { type Ears, rangeOf } from './useEars.ts';

/** What is waited for. */
export interface Waited {
  readonly step: number;
  /** How many wrong notes came so far, and which the last one was, MIDI number; null where the last one was right. */
  readonly wrong: number;
  readonly last: number | null;
}

/** How long a stand-in takes to play a note, and to try again, in ms. */
const STAND_IN_MS = 350;
const AGAIN_MS = 1500;

/** Waits for each note of a run, and goes on when it was right; no clock sounds. */
export function useWaiting(
  { source, followNotes, stop: deafen }: Pick<Ears, 'source' | 'followNotes' | 'stop'>,
  strung: Strung,
  onStep: (step: number) => void,
) {
  const [now, setNow] = useState<Waited | null>(null);
  const [said, say] = useState<string | null>(null);
  const latest = useRef(onStep);
  useEffect(() => {
    latest.current = onStep;
  });
  const ending = useRef<() => void>(() => undefined);
  const stop = useCallback((): void => {
    ending.current();
    ending.current = () => undefined;
    setNow(null);
  }, []);
  useEffect(() => () => ending.current(), []);

  const start = (run: Run, { notes }: Schedule, from: number): void => {
    stop();
    say(null);
    let it: Waited = { step: from, wrong: 0, last: null };
    let timer: ReturnType<typeof setTimeout> | undefined;
    let wanted = true;
    ending.current = () => {
      wanted = false;
      clearTimeout(timer);
      deafen();
    };
    setNow(it);
    const played =
      source?.kind === 'standIn'
        ? new Map(standInPlays(run, notes, strung, source.faults, 1).map((note) => [note.step, note]))
        : null;
    const pitches = run.map(({ spot }) => spot.midi);
    void followNotes(rangeOf(pitches), (heard) => {
      for (const { midi } of heard) {
        if (!wanted) return;
        // The note before, struck once more, is no wrong one.
        if (midi !== pitches[it.step] && midi === pitches[it.step - 1]) continue;
        if (midi !== pitches[it.step]) it = { ...it, wrong: it.wrong + 1, last: midi };
        else if (it.step === run.length - 1) {
          stop();
          return say(
            `All ${plural(run.length - from, 'note')} came${it.wrong ? `, ${plural(it.wrong, 'wrong one')} on the way` : ', none wrong'}.`,
          );
        } else it = { ...it, step: it.step + 1, last: null };
        setNow(it);
        due();
      }
    }).then((following) => {
      if (!following || !wanted) return stop();
      due = () => {
        const { step, last } = it;
        latest.current(step);
        following.await(pitches[step]!);
        if (!played) return;
        // A stand-in plays it, wrongly at first where it has that fault, and tries again.
        clearTimeout(timer);
        const first = played.get(step);
        const right = soundOf(strung, run[step]!.spot, 'pick', first?.sounds.take ?? 0);
        const play = (wait: number): void => {
          timer = setTimeout(() => {
            const sounds = last === null && first ? { ...first.sounds, arrive: 'pick' as const } : right;
            following.play([plainNote(sounds, 0.02, 0.4)]);
            play(AGAIN_MS);
          }, wait);
        };
        play(STAND_IN_MS);
      };
      due();
    });
    let due = (): void => undefined;
  };
  return { now, said, start, stop };
}

import { type RoundSummary } from '@crow-ladder/core/listening';
import { type Run } from '@crow-ladder/core/run';
import { useEffect, useRef, useState } from 'react';
import { type Model, pitchName } from '../model/model.ts';
import { type Playing } from '../sound/usePlayback.ts';
import { strungOf } from '../sound/voiceOf.ts';
import { afterPaint } from '../ui/later.ts';
import { faultsSaid, summarySaid } from './Heard.tsx';
import { heardNow, type HeardNotes, pitchesOf } from './heardNotes.ts';
import { DEAF } from './source.ts';
import { type Ears } from './useEars.ts';
import { passFrom, useHearing } from './useHearing.ts';

interface HeardRound {
  readonly model: Model;
  /** All notes of what is played, what of it is played now, and which of its notes that begins with; null where there is nothing to play. */
  readonly all: Run | null;
  readonly part: Run | null;
  readonly first: number;
  /** What of it the page itself sounds, which a loudspeaker may give back. */
  readonly sounds: { readonly notes: boolean; readonly click: boolean };
  readonly onHeard: (notes: HeardNotes) => void;
  /** A round is over; `whole` is one that was listened to from its first note on. */
  readonly onOver?: (summary: RoundSummary, whole: boolean) => void;
}

/** Listens to rounds, and says what was heard of the last one, in sentences. */
export function useHeardRound({ model, all, part, first, sounds, onHeard, onOver }: HeardRound) {
  const [said, say] = useState({ of: '', text: '' });
  const following = useRef<() => void>(() => undefined);
  useEffect(
    () => () => {
      following.current();
      heardNow.tell(null);
    },
    [],
  );
  const hearing = useHearing({
    strung: strungOf(model),
    sounds,
    onHeard: (it) => {
      if (!all || !part) return;
      const { verdicts, extra, summary } = passFrom(first, it);
      const of = pitchesOf(all);
      const heard = { of, verdicts, extra };
      heardNow.tell(heard);
      // The newest one holds all that came before.
      following.current();
      following.current = afterPaint(() => onHeard(heard));
      if (!summary) return;
      const nameOf = (midi: number): string => pitchName(model, midi);
      const sentences = summarySaid(summary, hearing.delay, (at) => nameOf(all[at]!.spot.midi));
      say({ of, text: [...sentences, faultsSaid(all, heard, nameOf)].join(' ') });
      onOver?.(summary, verdicts.size === part.length);
    },
  });
  return {
    hearing,
    /** Whether there is something to listen to. */
    listens: hearing.source !== null && !(hearing.state in DEAF),
    /** What is said of what is played; nothing where that was something else. */
    said: all && said.of === pitchesOf(all) ? said.text : '',
    clear: () => {
      following.current();
      heardNow.tell(null);
      say({ of: '', text: '' });
    },
  };
}

/** How long is listened on after the last note, in ms. */
const HEARD_OUT_MS = 1800;
/** What ends by itself is heard to its end; nothing is listened to after that, but what was asked for since. */
export function useHeardOut(playing: Playing, { turnNow, stop }: Pick<Ears, 'turnNow' | 'stop'>): void {
  useEffect(() => {
    if (playing !== 'no') return undefined;
    const turn = turnNow();
    const timer = setTimeout(() => {
      if (turnNow() === turn) stop();
    }, HEARD_OUT_MS);
    return () => clearTimeout(timer);
  }, [playing, turnNow, stop]);
}

import { pitchAt, type Place } from '@crow-ladder/core';
import { type Card, type Ground } from '@crow-ladder/core/asking';
import { plainNote } from '@crow-ladder/core/listening';
import { soundOf, TAKES } from '@crow-ladder/core/sound';
import { useEffect, useEffectEvent, useMemo } from 'react';
import { type Ears } from '../../hearing/useEars.ts';
import { rangeOfNeck } from '../../hearing/useTaking.ts';
import { strungAs } from '../../sound/voiceOf.ts';

/** How long a stand-in takes from one spot to the next, in ms. */
const STAND_IN_MS = 700;

/** Tells each pitch that is heard while spots are asked for; a stand-in plays those that are right. */
export function useAnsweredByGuitar(
  { source, hears, followNotes, stop }: Ears,
  { instrument }: Card,
  { neck }: Ground,
  asked: readonly Place[] | null,
  onMidi: (midi: number) => void,
): void {
  const tell = useEffectEvent(onMidi);
  // By what is in it: a card that is drawn again is the same card.
  const places = JSON.stringify(asked);
  const range = useMemo(() => rangeOfNeck(neck), [neck]);
  const standIn = source?.kind === 'standIn';
  useEffect(() => {
    const spots = JSON.parse(places) as readonly Place[] | null;
    if (!hears || !spots) return undefined;
    let wanted = true;
    let timer: ReturnType<typeof setTimeout> | undefined;
    void followNotes(range, (notes) => {
      if (wanted) for (const { midi } of notes) tell(midi);
    }).then((following) => {
      if (!following || !standIn) return;
      const play = (i: number): void => {
        const place = spots[i];
        if (!wanted || !place) return;
        const midi = pitchAt(neck, place.string, place.fret);
        const sounds = soundOf(strungAs(instrument), { ...place, midi }, 'pick', i % TAKES);
        following.play([plainNote(sounds, 0.02, 0.5)]);
        timer = setTimeout(() => play(i + 1), STAND_IN_MS);
      };
      timer = setTimeout(() => play(0), STAND_IN_MS);
    });
    return () => {
      wanted = false;
      clearTimeout(timer);
      stop();
    };
  }, [hears, places, range, standIn, neck, instrument, followNotes, stop]);
}

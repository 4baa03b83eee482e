import { droneOf } from '@crow-ladder/core/sound';
import { useEffect, useMemo, useRef, useState } from 'react';
import { type Model } from '../../model/model.ts';
import { startDrone } from '../../sound/audio.ts';
import { type PracticeParams } from './params.ts';

export interface DroneState {
  readonly on: boolean;
  readonly setOn: (on: boolean) => void;
}

/** A drone on the root or its chord, begun and ended by itself; leaving the task ends it. */
export function useDrone(
  model: Model,
  { drone, under }: Pick<PracticeParams, 'drone' | 'under'>,
): DroneState {
  const [on, setOn] = useState(false);
  const pitches = droneOf(model.key, drone).join(' ');
  const sounding = useRef<Awaited<ReturnType<typeof startDrone>> | null>(null);
  const level = useRef(under);
  useEffect(() => {
    level.current = under;
    sounding.current?.setLevel(under / 100);
  }, [under]);
  useEffect(() => {
    if (!on) return;
    let wanted = true;
    void startDrone(pitches.split(' ').map(Number), level.current / 100).then((it) => {
      if (wanted) sounding.current = it;
      else it.stop();
    });
    return () => {
      wanted = false;
      sounding.current?.stop();
      sounding.current = null;
    };
  }, [on, pitches]);
  return useMemo(() => ({ on, setOn }), [on]);
}

import { type NeckLook, layOutNeck } from '@crow-ladder/picture';
import { useLayoutEffect, useState } from 'react';
import { LARGEST } from '../ui/neck/Neck.tsx';

const UPRIGHT: NeckLook = { vertical: true, even: true, lowOnTop: false, leftHanded: false, zoom: null };

/** How long an upright neck with so many strings has to be to fill its place, in the units that it is drawn in; null before that is known. */
export function useUpright(place: HTMLElement | null, strings: number): number | null {
  const [long, setLong] = useState<number | null>(null);
  useLayoutEffect(() => {
    const neck = place?.querySelector('.neck')?.parentElement;
    if (!place || !neck) return;
    const { width } = layOutNeck({ strings, frets: 4, capo: 0 }, UPRIGHT);
    const measure = (): void => {
      const scale = Math.min(neck.clientWidth / width, LARGEST);
      if (scale > 0 && place.clientHeight > 0) setLong(Math.floor(place.clientHeight / scale) - 1);
    };
    const watch = new ResizeObserver(measure);
    watch.observe(place);
    watch.observe(neck);
    measure();
    return () => watch.disconnect();
  }, [place, strings]);
  return place && long;
}

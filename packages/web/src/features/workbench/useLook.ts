import { type Settings } from '@crow-ladder/contract';
import { type Instrument } from '@crow-ladder/core';
import { useMemo } from 'react';
import { useApp } from '../../app/store.ts';
import { type NeckLook } from '../../ui/neck/geometry.ts';
import { useNarrow } from '../../ui/useNarrow.ts';

/** How the neck is drawn: by the settings, the instrument's hand, the frets asked for and the room there is. */
export function useLook(instrument: Instrument, settings: Settings): NeckLook {
  const narrow = useNarrow();
  const zoom = useApp((s) => s.view.zoom);
  const frets = instrument.frets - instrument.capo;
  const left = settings.handed === 'left' || instrument.handed === 'left';
  return useMemo(
    () => ({
      vertical: narrow,
      even: settings.frets === 'even',
      lowOnTop: settings.stringOnTop === 'low',
      leftHanded: left,
      zoom: zoom ? [Math.min(zoom[0], frets - 1), Math.min(zoom[1], frets)] : null,
    }),
    [narrow, settings.frets, settings.stringOnTop, left, zoom, frets],
  );
}

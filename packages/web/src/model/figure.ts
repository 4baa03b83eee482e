import { type Settings } from '@crow-ladder/contract';
import { type Accidentals, type Instrument, midiName, pitchClassName, pretty } from '@crow-ladder/core';
import { type Figure, type NeckLook } from '@crow-ladder/picture';
import { weakMapMemoize } from '@reduxjs/toolkit';

const openString = weakMapMemoize((midi: number, accidentals: Accidentals) => ({
  name: pretty(pitchClassName(midi, accidentals)),
  pitch: pretty(midiName(midi, accidentals)),
}));

/** The bare neck of an instrument. Open strings are named as they sound with the capo. */
export function figureOf(instrument: Instrument, accidentals: Accidentals, look: NeckLook): Figure {
  const { tuning, frets, capo, wound } = instrument;
  const strings = tuning.map((midi) => openString(midi + capo, accidentals)).reverse();
  return { strings, frets, capo, wound, look };
}

/** How a neck is drawn: by the settings, the instrument's hand, the frets asked for and the room there is. */
export function lookOf(
  instrument: Pick<Instrument, 'frets' | 'capo' | 'handed'>,
  settings: Pick<Settings, 'handed' | 'frets' | 'stringOnTop'>,
  zoom: readonly [number, number] | null,
  narrow: boolean,
  /** How long an upright neck is to be, in the units that it is drawn in; as is usual where it is not said. */
  long: number | null = null,
): NeckLook {
  const frets = instrument.frets - instrument.capo;
  const hand = settings.handed === 'instrument' ? instrument.handed : settings.handed;
  return {
    vertical: narrow,
    even: settings.frets === 'even',
    lowOnTop: settings.stringOnTop === 'low',
    leftHanded: hand === 'left',
    ...(narrow && long !== null ? { long } : {}),
    zoom: zoom ? [Math.min(zoom[0], frets - 1), Math.min(zoom[1], frets)] : null,
  };
}

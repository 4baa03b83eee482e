import { type Settings } from '@crow-ladder/contract';
import { placeId, type Spot } from '@crow-ladder/core';
import { layersOf, type Mark, type NeckLook } from '@crow-ladder/picture';
import { useMemo } from 'react';
import { figureOf, lookOf } from '../model/figure.ts';
import { colourOf, labelOf } from '../model/marks.ts';
import { type Model, pitchName } from '../model/model.ts';
import { Drawing } from '../ui/neck/Drawing.tsx';
import { still } from '../ui/neck/source.ts';

/** Length of a small neck in user units, and the fewest frets that it shows. */
const LONG = 360;
const FEWEST = 6;

/** A small neck around the notes of a shape: what is looked at, nothing else. */
export function SmallNeck({
  model,
  settings,
  spots,
  name,
}: {
  model: Model;
  settings: Settings;
  /** The notes that lie here; those of the position in front where they are left out. */
  spots?: readonly { readonly to: Spot | null }[];
  name: string;
}) {
  const source = useMemo(() => {
    const { state, neck, accidentals, front } = model;
    const shown = spots?.flatMap(({ to }) => (to ? [to] : [])) ?? front?.position.held ?? [];
    const frets = shown.length ? shown.map((s) => s.fret) : [0];
    const low = Math.max(0, Math.min(...frets) - 1);
    const high = Math.min(neck.frets, Math.max(...frets, low + FEWEST - 1) + 1);
    const look: NeckLook = {
      ...lookOf(state.instrument, settings, [Math.max(0, Math.min(low, high - FEWEST)), high], false),
      even: true,
      long: LONG,
    };
    const once = [...new Map(shown.map((spot) => [placeId(spot), spot])).values()];
    const marks = once.map((spot, order): Mark => {
      const { string, fret, degree, midi } = spot;
      return {
        string,
        fret,
        kind: degree < 0 ? 'altered' : degree === 0 ? 'root' : 'note',
        label: degree < 0 ? pitchName(model, midi) : labelOf(model, settings.labels, { ...spot, order }),
        name: () => '',
        ...colourOf(model, { labels: settings.labels, rootsOnly: false, colours: settings.colours }, degree),
      };
    });
    return still({
      figure: figureOf(state.instrument, accidentals, look),
      layers: layersOf({ marks }),
    });
  }, [model, settings, spots]);
  return <Drawing source={source} name={name} />;
}

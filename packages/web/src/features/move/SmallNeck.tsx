import { type Settings } from '@crow-ladder/contract';
import { type MovedSpot, placeId } from '@crow-ladder/core';
import { layersOf, type Mark, type NeckLook } from '@crow-ladder/picture';
import { useMemo } from 'react';
import { figureOf, lookOf } from '../../model/figure.ts';
import { marksOf } from '../../model/marks.ts';
import { type Model, pitchName } from '../../model/model.ts';
import { Drawing } from '../../ui/neck/Drawing.tsx';
import { still } from '../../ui/neck/source.ts';

/** Length of a small neck in user units, and the fewest frets that it shows. */
const LONG = 360;
const FEWEST = 6;

/** A small neck around the notes of a shape: what was moved in front, nothing else. */
export function SmallNeck({
  model,
  settings,
  spots,
  name,
}: {
  model: Model;
  settings: Settings;
  /** The notes that were moved here; those of the position in front where they are left out. */
  spots?: readonly MovedSpot[];
  name: string;
}) {
  const source = useMemo(() => {
    const { state, neck, accidentals, front } = model;
    const shown = spots?.flatMap(({ to }) => (to ? [to] : [])) ?? front?.position.spots ?? [];
    const ids = new Set(shown.map(placeId));
    const frets = shown.length ? shown.map((s) => s.fret) : [0];
    const low = Math.max(0, Math.min(...frets) - 1);
    const high = Math.min(neck.frets, Math.max(...frets, low + FEWEST - 1) + 1);
    const look: NeckLook = {
      ...lookOf(state.instrument, settings, [Math.max(0, Math.min(low, high - FEWEST)), high], false),
      even: true,
      long: LONG,
    };
    const inScale = marksOf(model, { labels: settings.labels, rootsOnly: false, colours: settings.colours }).filter((m) => ids.has(placeId(m))); // prettier-ignore
    const drawn = new Set(inScale.map(placeId));
    const strange = shown
      .filter((s) => !drawn.has(placeId(s)))
      .map((s): Mark => ({
        ...s,
        kind: 'altered',
        label: pitchName(model, s.midi),
        name: () => '',
      }));
    const marks = inScale.map((m): Mark => ({ ...m, kind: m.kind === 'outsideRoot' ? 'root' : m.kind === 'outside' ? 'note' : m.kind })); // prettier-ignore
    return still({
      figure: figureOf(state.instrument, accidentals, look),
      layers: layersOf({ marks: [...marks, ...strange] }),
    });
  }, [model, settings, spots]);
  return <Drawing source={source} name={name} />;
}

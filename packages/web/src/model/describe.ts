import { degreeIndex, holding, list, pitchAt, type Place, unisons, spotSaid } from '@crow-ladder/core';
import { type Fingering } from '@crow-ladder/core/run';
import { shapeSteps } from '@crow-ladder/core/sources';
import { type Model, pitchName } from './model.ts';
import { FINGERS, spotNamed } from './wording.ts';

/** How many positions that hold a spot are told. */
const TOLD = 4;

/** What a spot is: "String 3, fret 6: G♯, degree 2, ring finger". The finger is that of the fingering shown. */
export function spotHead(
  model: Model,
  place: Place,
  fingering: () => Fingering | null = model.fingering,
): string {
  const { neck, key, notes, degrees, front } = model;
  const midi = pitchAt(neck, place.string, place.fret);
  const degree = degreeIndex(key, midi);
  const isHere = (s: Place): boolean => s.string === place.string && s.fret === place.fret;
  const here = front?.position.held.find(isHere);
  const altered = here?.altered;
  const parts = [
    altered || degree < 0 ? pitchName(model, midi) : notes[degree],
    altered
      ? 'an altered note'
      : degree < 0
        ? 'outside the scale'
        : degree === 0
          ? 'the root'
          : `degree ${degrees[degree]}`,
  ];
  const shown = here ? fingering() : null;
  const by = shown && shapeSteps(neck, front!.position, shown.steps).find(({ spot }) => isHere(spot))?.finger;
  if (by) parts.push(FINGERS[by]);
  return `${spotNamed(place)}: ${parts.join(', ')}`;
}

/** What a player wants to know about a spot beside what it is: where its pitch lies too, and the positions that hold it. */
export function spotMore({ neck, positions, names }: Model, { string, fret }: Place): string {
  const same = unisons(neck, string, fret);
  const also = same.length
    ? `Same pitch at ${list(same.map((s) => spotSaid(s)))}.`
    : 'This pitch lies nowhere else.';
  const held = positions.ok ? holding(positions.value, string, fret).slice(0, TOLD) : [];
  return held.length ? `${also} In ${list(held.map((h) => names()[h.position.index]!))}.` : also;
}

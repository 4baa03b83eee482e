import { type ChartState, isNoteAdded, type NoteAdded } from '@crow-ladder/contract';
import {
  degreeIndex,
  degreeName,
  mod,
  noteName,
  pitchClass,
  type Position,
  pretty,
  spellDegree,
  spellOffsets,
} from '@crow-ladder/core';
import { addedSpots, type AddedSpot } from '@crow-ladder/core/overlays';
import { addedSource, type Source } from '@crow-ladder/core/sources';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from './model.ts';

/** The notes that are added to a chart's scale and are none of it. */
export const addedTo = weakMapMemoize(({ state, key }: Model): readonly NoteAdded[] =>
  state.overlays
    .filter(isNoteAdded)
    .filter(({ above }) => degreeIndex(key, pitchClass(key.root) + above) < 0),
);
const spotsFor = weakMapMemoize((model: Model, position: Position): readonly AddedSpot[] =>
  addedSpots(model.neck, model.key, position, addedTo(model)),
);
/** Where they lie in a position. */
export const addedIn = (model: Model, position: Position): readonly AddedSpot[] =>
  addedTo(model).length ? spotsFor(model, position) : [];
const sourceFor = weakMapMemoize((model: Model, position: Position): Source =>
  addedSource(model.neck, model.key, position, model.hand, addedTo(model)),
);
/** A position as it is practised: with the notes that are added to it. */
export const sourceWithAdded = (model: Model, position: Position): Source =>
  addedTo(model).length ? sourceFor(model, position) : model.source(position);

/** A note beside the scale, spelled as it would be in it: "♭5", "E♭". */
export function beside({ key }: Model, above: number): { readonly degree: string; readonly note: string } {
  const offsets = [...key.scale.offsets, above].sort((a, b) => a - b);
  const degree = spellOffsets(offsets)[offsets.indexOf(above)]!;
  return { degree: pretty(degreeName(degree)), note: pretty(noteName(spellDegree(key.root, degree))) };
}
/** How far a pitch lies above the chart's root, in half steps. */
export const aboveRoot = ({ key }: Model, midi: number): number => mod(midi - pitchClass(key.root), 12);

/** A note added, only touched, or no more; what else is laid over the chart stays. */
export const withAddedNote = (
  state: ChartState,
  above: number,
  role: 'rest' | 'passing' | null,
): ChartState => ({
  ...state,
  overlays: [
    ...state.overlays.filter((overlay) => !isNoteAdded(overlay) || overlay.above !== above),
    ...(role === null ? [] : [{ type: 'added', above, passing: role === 'passing' } as const]),
  ],
});

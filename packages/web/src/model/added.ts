import { type ChartState, isNoteAdded, type NoteAdded, type Overlay } from '@crow-ladder/contract';
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
import { addedSpots, type AddedSpot, nextString } from '@crow-ladder/core/overlays';
import { addedSource, type Source } from '@crow-ladder/core/sources';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from './model.ts';
import { spotNamed } from './wording.ts';

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

/** An added note as the neck says it: "String 3, fret 8: E♭, ♭5, a passing note". */
export function addedSaid(model: Model, spot: AddedSpot): string {
  const { degree, note } = beside(model, aboveRoot(model, spot.midi));
  return `${spotNamed(spot)}: ${note}, ${degree}, ${spot.added === 'passing' ? 'a passing note' : 'an added note'}`;
}

/** A note added in a way, or no more; where it lies, and what else is laid over the chart, stays. */
export function withAddedNote(state: ChartState, above: number, kind: AddedSpot['added'] | null): ChartState {
  const isIt = (overlay: Overlay): overlay is NoteAdded => isNoteAdded(overlay) && overlay.above === above;
  const moved = state.overlays.find(isIt)?.moved;
  const note: NoteAdded = {
    type: 'added',
    above,
    passing: kind === 'passing',
    ...(kind === 'slid' && { slid: true }),
    ...(moved && { moved }),
  };
  return {
    ...state,
    overlays: [...state.overlays.filter((overlay) => !isIt(overlay)), ...(kind === null ? [] : [note])],
  };
}

/** The change that plays an added note on the next string under the hand; null where there is none. */
export function addedMoved(
  model: Model,
  position: Position,
  spot: AddedSpot,
): { readonly to: number; readonly change: (state: ChartState) => ChartState } | null {
  const to = nextString(model.neck, position, spot);
  if (to === null) return null;
  const above = aboveRoot(model, spot.midi);
  const from = spot.from ?? spot.string;
  return {
    to,
    change: (state) => ({
      ...state,
      overlays: state.overlays.map((overlay): Overlay => {
        if (!isNoteAdded(overlay) || overlay.above !== above) return overlay;
        const { moved = [], ...note } = overlay;
        const others = moved.filter(([at]) => at !== from);
        const all = to === from ? others : [...others, [from, to] as const];
        return all.length ? { ...note, moved: all } : note;
      }),
    }),
  };
}

import { type ChartState, type Settings, called } from '@crow-ladder/contract';
import {
  accidentalsOf,
  type Accidentals,
  degreeName,
  frontOf,
  type Front,
  type Key,
  type Neck,
  neckOf,
  note,
  noteName,
  pitchClassName,
  type Position,
  positionNames,
  pretty,
  refOf,
  type Result,
  type Scale,
  spellScale,
  usualSchool,
} from '@crow-ladder/core';
import { layOut, type LayoutReason, type LayoutSpec } from '@crow-ladder/core/layouts';
import { frontAfter, type Moving, type Outcome, toKey } from '@crow-ladder/core/moves';
import {
  articulate,
  fingers,
  type Fingering,
  type HandOptions,
  inTime,
  type Route,
  type Run,
} from '@crow-ladder/core/run';
import { positionSource, type Source } from '@crow-ladder/core/sources';
import { type Clef } from '@crow-ladder/core/notation';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { scaleOf, transpose, withFront } from './moves.ts';

/** Everything that follows from a chart's state and the player's settings. */
export interface Model {
  readonly state: ChartState;
  readonly neck: Neck;
  readonly key: Key;
  readonly scale: Scale;
  /** Printed names of the scale's notes and degrees, by degree index. */
  readonly notes: readonly string[];
  readonly degrees: readonly string[];
  /** How notes outside the scale and open strings are named: as the scale's own notes are. */
  readonly accidentals: Accidentals;
  readonly positions: Result<readonly Position[], LayoutReason>;
  /** Titles of the positions, printed; made, as the fingering is, when first asked for: the neck can do without. */
  readonly names: () => readonly string[];
  /** The position in front and why it is; null only where there is none at all. */
  readonly front: Front | null;
  /** A position, as the player uses the hand. */
  readonly source: (position: Position) => Source;
  /** Of the position in front, upward. */
  readonly fingering: () => Fingering | null;
  /** How the player uses the hand. */
  readonly hand: HandOptions;
  /** The fingers of any route, as the player uses the hand. */
  readonly fingers: (route: Route) => Fingering;
}

const neckFor = weakMapMemoize(neckOf);
const keyFor = weakMapMemoize((root: string, scale: Scale): Key => ({ root: note(root), scale }));
/** All positions of a layout; the same ones whichever of them is in front. */
const positionsFor = weakMapMemoize(layOut);
const namesFor = weakMapMemoize(
  (all: readonly Position[], key: Key, school: Parameters<typeof positionNames>[2], layout: LayoutSpec) =>
    positionNames(all, key, school, layout).map(pretty),
);
const NONE: readonly Position[] = [];

function make(state: ChartState, settings: Settings): Model {
  const neck = neckFor(state.instrument);
  const scale = called(scaleOf(state), settings.ownScales);
  const key = keyFor(state.key.root, scale);
  const positions = positionsFor(neck, key, state.layout);
  const all = positions.ok ? positions.value : NONE;
  const front = frontOf(all, state.front, state.at);
  const school = settings.numbering === 'usual' ? usualSchool(scale) : settings.numbering;
  const notes = spellScale(key).map((n) => pretty(noteName(n)));
  const hand = { school: settings.fingering, spanMm: settings.spanMm };
  const source = weakMapMemoize((position: Position) => positionSource(neck, position, hand));
  return {
    state,
    neck,
    key,
    scale,
    notes,
    accidentals: accidentalsOf(notes, settings.spelling),
    degrees: scale.degrees.map((d) => pretty(degreeName(d))),
    positions,
    names: () => namesFor(all, key, school, state.layout),
    front,
    hand,
    source,
    fingering: () => front && source(front.position).up,
    fingers: (route) => fingers(neck, route, hand),
  };
}

/** The model of a state; the neck and what explains it ask for the same one, a moment apart. */
export const modelOf: (state: ChartState, settings: Settings) => Model = weakMapMemoize(make);

/** What a move sets out from; null where no position is in front. */
export const movingOf = weakMapMemoize(
  ({ state, neck, key, front }: Model): Moving | null =>
    front && {
      instrument: state.instrument,
      neck,
      key,
      root: state.at,
      layout: state.layout,
      front: front.position,
    },
);

/** A chart after a move, with the position in front that holds most of the notes moved; `instrumentId`: of the player's own instrument that it went to. */
export function applied(
  state: ChartState,
  outcome: Outcome,
  settings: Settings,
  instrumentId: string | null = null,
): ChartState {
  const { instrument, key, root, layout, spots } = outcome;
  const same = instrument === state.instrument;
  const after: ChartState = {
    ...state,
    key: { root: noteName(key.root), scale: key.scale.id },
    at: root,
    layout,
    front: null,
    instrument,
    instrumentId: same ? state.instrumentId : instrumentId,
  };
  const model = modelOf(after, settings);
  const front = model.positions.ok ? frontAfter(model.positions.value, spots) : null;
  if (!front || front.index === model.front?.position.index) return after;
  return withFront(after, refOf(model.positions.ok ? model.positions.value : [], front));
}

/** The key moved by half steps, and the position in front with it. */
export function moveKey(state: ChartState, by: number, settings: Settings): ChartState {
  const moving = movingOf(modelOf(state, settings));
  return moving
    ? applied(state, toKey(moving, { by, prefer: settings.spelling, octaves: false }), settings)
    : transpose(state, by, settings.spelling);
}

/** The frets of the position in front, some more on either side; null where none is in front. */
export const around = ({ front, neck }: Model, more = 2): readonly [number, number] | null =>
  front && [Math.max(0, front.position.lowFret - more), Math.min(neck.frets, front.position.highFret + more)];

/**
 * The frets that a neck shows: those asked for, else all; on a narrow screen those that the task is about, else those of
 * the position, unless all are asked for.
 */
export const fretsShown = (
  model: Model,
  { zoom, whole }: { readonly zoom: readonly [number, number] | null; readonly whole: boolean },
  narrow: boolean,
  ofTask: () => readonly [number, number] | null | undefined,
): readonly [number, number] | null => zoom ?? (narrow && !whole ? (ofTask() ?? around(model, 1)) : null);

/** The name of a pitch outside the scale, without its octave, printed. */
export const pitchName = ({ accidentals }: Pick<Model, 'accidentals'>, midi: number): string =>
  pretty(pitchClassName(midi, accidentals));

/** A fingering played through evenly in eighths, every note picked or slurred where the fingers allow it. */
export const played = ({ steps }: Fingering, touch: 'picked' | 'slurred' = 'picked'): Run =>
  inTime(articulate(steps, touch));

/** Scale lengths from which an instrument is a bass, in mm. */
const BASS_MM = 750;
export const isBassLength = (mm: number): boolean => mm >= BASS_MM;
export const isBass = ({ state }: Model): boolean => isBassLength(state.instrument.scaleLength);
/** The clef in which what is played on it is usually written. */
export const clefOf = (model: Model): Clef => (isBass(model) ? 'bass' : 'treble');

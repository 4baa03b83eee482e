import { type ChartState, type Settings } from '@crow-ladder/contract';
import {
  type Accidentals, articulate, degreeName, fingers, type Fingering, frontOf, type Front, inTime, type Key, layOut, type LayoutReason, lazily,
  type Neck, neckOf, note, noteName, pitchClassName, type Position, positionNames, pretty, type Result, type Route, type Run, type Scale, spellScale, usualSchool,
} from '@crow-ladder/core'; // prettier-ignore
import { weakMapMemoize } from '@reduxjs/toolkit';
import { scaleOf } from './moves.ts';
import { called } from './scales.ts';

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
  /** Of the position in front, upward. */
  readonly fingering: () => Fingering | null;
  /** The fingers of any route, as the player uses the hand. */
  readonly fingers: (route: Route) => Fingering;
}

const neckFor = weakMapMemoize(neckOf);

function make(state: ChartState, settings: Settings): Model {
  const neck = neckFor(state.instrument);
  const scale = called(scaleOf(state), settings.ownScales);
  const key: Key = { root: note(state.key.root), scale };
  const positions = layOut(neck, key, state.layout);
  const all = positions.ok ? positions.value : [];
  const front = frontOf(all, state.front, state.at);
  const school = settings.numbering === 'usual' ? usualSchool(scale) : settings.numbering;
  const notes = spellScale(key).map((n) => pretty(noteName(n)));
  const has = (sign: string): boolean => notes.some((n) => n.includes(sign));
  const hand = { school: settings.fingering, spanMm: settings.spanMm };
  return {
    state,
    neck,
    key,
    scale,
    notes,
    accidentals: has('♯') === has('♭') ? settings.spelling : has('♭') ? 'flats' : 'sharps',
    degrees: scale.degrees.map((d) => pretty(degreeName(d))),
    positions,
    names: lazily(() => positionNames(all, key, school, state.layout).map(pretty)),
    front,
    fingering: lazily(() => front && fingers(neck, front.position.spots, hand)),
    fingers: (route) => fingers(neck, route, hand),
  };
}

/** The model of a state; the neck and what explains it ask for the same one, a moment apart. */
export const modelOf: (state: ChartState, settings: Settings) => Model = weakMapMemoize(make);

/** The frets of the position in front, two more on either side; null where none is in front. */
export const around = ({ front, neck }: Model): readonly [number, number] | null =>
  front && [Math.max(0, front.position.lowFret - 2), Math.min(neck.frets, front.position.highFret + 2)];

/** The name of a pitch outside the scale, without its octave, printed. */
export const pitchName = ({ accidentals }: Pick<Model, 'accidentals'>, midi: number): string =>
  pretty(pitchClassName(midi, accidentals));

/** A fingering played through evenly in eighths, every note picked or slurred where the fingers allow it. */
export const played = ({ steps }: Fingering, touch: 'picked' | 'slurred' = 'picked'): Run =>
  inTime(articulate(steps, touch));

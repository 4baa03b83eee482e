import { DEFAULT_INSTRUMENT, type Instrument, type Place, type PositionRef } from '@crow-ladder/core';
import { type LayoutSpec } from '@crow-ladder/core/layouts';
import { type Overlay } from './overlay.ts';
import { type ChordPart } from './progression.ts';
import { type PhrasePart } from './phrase.ts';
import { type KeptRun, type UnreadRun } from './run.ts';

/** The version of charts that this application writes. */
export const DOCUMENT_VERSION = 3;

/** Another instrument that a chart is played on, with its own layout and position; its root lies on a string near a fret. */
export interface OtherInstrument {
  readonly instrument: Instrument;
  readonly instrumentId: string | null;
  readonly at: Place;
  readonly layout: LayoutSpec;
  readonly front: PositionRef | null;
}

/** What a chart shows: everything that the sentence above the neck says. Version 3 of the document. */
export interface ChartState {
  readonly v: typeof DOCUMENT_VERSION;
  /** Plain note name of the root, "F#"; id of a catalogue scale, or `own:` and degrees. */
  readonly key: { readonly root: string; readonly scale: string };
  /** Where the root was put. */
  readonly at: Place;
  readonly layout: LayoutSpec;
  /** The position brought forward; null is the one through the root. */
  readonly front: PositionRef | null;
  /** Kept with the chart, so that it stays true when the player's instrument changes or goes. */
  readonly instrument: Instrument;
  /** The player's instrument that it was taken from, if any. */
  readonly instrumentId: string | null;
  /** The instruments that it can be switched to. */
  readonly others: readonly OtherInstrument[];
  readonly overlays: readonly Overlay[];
  readonly chords: readonly ChordPart[];
  readonly phrases: readonly PhrasePart[];
  readonly runs: readonly (KeptRun | UnreadRun)[];
}

/** The parts of a chart that may be left out. */
export const NO_PARTS = { others: [], overlays: [], chords: [], phrases: [], runs: [] } as const;

/** What the first visit shows when nothing else is asked for. */
export const FIRST_STATE: ChartState = {
  v: DOCUMENT_VERSION,
  key: { root: 'F#', scale: 'dorian' },
  at: { string: 6, fret: 2 },
  layout: { kind: 'count', counts: [3] },
  front: null,
  instrument: { ...DEFAULT_INSTRUMENT, name: 'standard' },
  instrumentId: null,
  ...NO_PARTS,
};

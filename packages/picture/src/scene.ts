import { type Place } from '@crow-ladder/core';

/** What a spot is to the player; each kind has its own shape. Three compare two positions: in both, in one of them; `was` is where a note was. */
export type MarkKind =
  | 'root'
  | 'note'
  | 'altered'
  | 'added'
  | 'passing'
  | 'outside'
  | 'outsideRoot'
  | 'shared'
  | 'lower'
  | 'upper'
  | 'was';

/** What stands on one spot. */
export interface Mark extends Place {
  readonly kind: MarkKind;
  /** True for a root among marks that compare positions. */
  readonly root?: boolean;
  readonly label: string;
  /** Read by screen readers: "String 5 fret 1, B♭, root"; made only when it is wanted. */
  readonly name: () => string;
  /** A note followed from drawing to drawing: when it comes to another place, it is seen to go there. */
  readonly follows?: string;
  /** How the note was heard that was played there. */
  readonly heard?: 'right' | 'wrong' | 'missed';
  /** Fill and text colour where colours tell degrees. */
  readonly fill?: string;
  readonly text?: string;
}

/** What joins two spots: a step of the scale, a move of the hand, a note's way to another string, a miscount, an octave, or where a note was. */
export type LinkKind = 'step' | 'move' | 'travel' | 'miss' | 'octave' | 'was';

/** A line between two spots, with a word on it where there is one. */
export interface Link {
  readonly from: Place;
  readonly to: Place;
  readonly kind: LinkKind;
  readonly label: string;
}

/** Frets from one to another, both included, with a word on them where there is one. */
export interface FretBand {
  readonly from: number;
  readonly to: number;
  readonly label: string;
}

/** How a neck is drawn. */
export interface NeckLook {
  readonly vertical: boolean;
  readonly even: boolean;
  readonly lowOnTop: boolean;
  readonly leftHanded: boolean;
  /** Lowest and highest fret shown. */
  readonly zoom: readonly [number, number] | null;
  /** Length of the neck in user units; the full width of a page, or upright what its frets need, where it is left out. */
  readonly long?: number;
  /** More room between the strings of a lying neck, for words between the marks. */
  readonly roomy?: boolean;
}

/** A string by its open note. */
export interface OpenString {
  /** "E". */
  readonly name: string;
  /** With its octave: "E2". */
  readonly pitch: string;
}

/** The bare neck, and how it is drawn. Frets count from the nut. */
export interface Figure {
  /** String 1 first. */
  readonly strings: readonly OpenString[];
  readonly frets: number;
  /** Fret of the capo, 0 without one. */
  readonly capo: number;
  /** How many strings, counted from the lowest, are wound. */
  readonly wound: number;
  readonly look: NeckLook;
}

/** What lies on the neck, from below to above. */
export interface Layers {
  readonly regions: readonly FretBand[];
  /** The frets under the hand. */
  readonly hand: FretBand | null;
  readonly links: readonly Link[];
  /** The way of a run through its spots. */
  readonly path: readonly Place[];
  readonly marks: readonly Mark[];
  /** The note that sounds, and the one after it. */
  readonly cursor: { readonly at: Place; readonly next: Place | null } | null;
}

export interface Scene {
  readonly figure: Figure;
  readonly layers: Layers;
}

const BARE: Layers = { regions: [], hand: null, links: [], path: [], marks: [], cursor: null };

/** Layers with nothing but what is given. */
export const layersOf = (given: Partial<Layers>): Layers => ({ ...BARE, ...given });

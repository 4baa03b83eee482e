import { type PhraseChord } from '@crow-ladder/core/phrases';
import { type KeptPhrase } from './document/phrase.ts';

/** Which phrases of all charts are asked for; what is empty, or 0, is any. */
export interface PhraseQuery {
  /** Words of its name, its tags or its chart's name. */
  readonly find: string;
  /** Degrees in order, as they are typed: a piece of a line, in any key. */
  readonly degrees: string;
  /** A chord on its root, of which most of it are notes. */
  readonly chord: PhraseChord | '';
  /** Notes at most. */
  readonly most: number;
}

/** How many phrases a page of the collection holds. */
export const PHRASE_PAGE = 20;

/** A phrase with the chart that it is kept with. */
export interface PhraseFound {
  readonly chart: string;
  readonly chartName: string;
  readonly phrase: KeptPhrase;
}
export interface PhrasePage {
  readonly phrases: readonly PhraseFound[];
  /** How many were found, on all pages, and how many there are. */
  readonly found: number;
  readonly all: number;
}

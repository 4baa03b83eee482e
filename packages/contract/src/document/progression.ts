import { type Bars, type ScaleAbove } from '@crow-ladder/core/chords';
import { type Part } from './run.ts';

/** Chords that are played over, counted from the chart's root, so that they go with the key. */
export interface Progression {
  readonly type: 'progression';
  /** Quarter notes a bar. */
  readonly beats: number;
  readonly bars: Bars;
  /** The scale that was chosen over a chord, by what tells the chord from others; the others have the one that fits best. */
  readonly scales: Readonly<Record<string, ScaleAbove>>;
}
export type ChordPart = Progression | Part;

export const isProgression = (part: ChordPart): part is Progression => part.type === 'progression';

/** What is kept of chords in one word of an address. */
export const chordPartWord = (part: ChordPart): string => JSON.stringify(part);
/** What such a word says. */
export function chordPartFrom(word: string): unknown {
  try {
    return JSON.parse(word) as unknown;
  } catch {
    return null;
  }
}

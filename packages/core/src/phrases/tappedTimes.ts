import { QUARTER } from '../run/run.ts';
import { PHRASE_LIMITS, type PhraseNote } from './phrase.ts';

/** Parts of a beat that taps are put on, in ticks. */
export const TAP_GRIDS = [
  { id: 'sixteenths', name: 'sixteenths', ticks: QUARTER / 4 },
  { id: 'triplets', name: 'triplets', ticks: QUARTER / 3 },
  { id: 'eighths', name: 'eighths', ticks: QUARTER / 2 },
] as const;
export type TapGrid = (typeof TAP_GRIDS)[number]['id'];

/**
 * Notes with the times that were tapped in to a metronome: `taps` are in ms from the first beat of a bar, in their order, `beat` is a beat in ms. Each tap is put on the nearest
 * part of the grid, in ticks, at least one part after the one before; a note lasts until the next, the last one to the end of its beat; the bar of the first
 * tap is filled up with a rest before it; `beats` are the quarter notes of a bar. Rests of before go, and notes that were not tapped keep their lengths at the end.
 *
 * @example withTappedTimes([{ at: null, length: 960 }, { at: { string: 6, fret: 5 }, length: 960 }], [510], 500, 240, 4).map((n) => n.length) // [960,960]
 */
export function withTappedTimes(
  notes: readonly PhraseNote[],
  taps: readonly number[],
  beat: number,
  grid: number,
  beats: number,
): readonly PhraseNote[] {
  const [, most] = PHRASE_LIMITS.length;
  const sounding = notes.filter(({ at }) => at !== null);
  const onsets: number[] = [];
  for (const ms of taps.slice(0, sounding.length)) {
    const at = Math.round(((ms / beat) * QUARTER) / grid) * grid;
    onsets.push(Math.max(0, at, (onsets.at(-1) ?? -grid) + grid));
  }
  if (!onsets.length) return notes;
  const bar = beats * QUARTER;
  const before = onsets[0]! % bar;
  const timed = onsets.flatMap((at, i): readonly PhraseNote[] => {
    const until = onsets[i + 1] ?? (Math.floor(at / QUARTER) + 1) * QUARTER;
    const length = Math.min(most, until - at);
    const rest = until - at - length;
    return [{ ...sounding[i]!, length }, ...(rest > 0 ? [{ at: null, length: Math.min(most, rest) }] : [])];
  });
  return [...(before ? [{ at: null, length: before }] : []), ...timed, ...sounding.slice(onsets.length)];
}

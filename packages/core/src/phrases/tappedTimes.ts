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
 * Moments put on the nearest part of a grid: `moments` are in ms from the first beat of a bar, in their order, `beat` is a beat in ms, `grid` a
 * part in ticks. Ticks of each, at least one part after the one before.
 *
 * @example onGrid([510, 520], 500, 240) // [960,1200]
 */
export function onGrid(moments: readonly number[], beat: number, grid: number): readonly number[] {
  const onsets: number[] = [];
  for (const ms of moments) {
    const at = Math.round(((ms / beat) * QUARTER) / grid) * grid;
    onsets.push(Math.max(0, at, (onsets.at(-1) ?? -grid) + grid));
  }
  return onsets;
}

/**
 * What lasts from each of some moments, in ticks, until the next, the last one to the end of its beat: which of them, or null for a rest, and how
 * long. The bar of the first one, of so many quarter notes, is filled up with a rest before it, and what would last too long by one after it.
 *
 * @example lastingFrom([960, 1440], 4) // [{"of":null,"length":960},{"of":0,"length":480},{"of":1,"length":480}]
 */
export function lastingFrom(
  onsets: readonly number[],
  beats: number,
): readonly { readonly of: number | null; readonly length: number }[] {
  const [, most] = PHRASE_LIMITS.length;
  const before = (onsets[0] ?? 0) % (beats * QUARTER);
  const lasts = onsets.flatMap((at, of) => {
    const until = onsets[of + 1] ?? (Math.floor(at / QUARTER) + 1) * QUARTER;
    const length = Math.min(most, until - at);
    const rest = Math.min(most, until - at - length);
    return [{ of, length }, ...(rest > 0 ? [{ of: null, length: rest }] : [])];
  });
  return [...(before ? [{ of: null, length: before }] : []), ...lasts];
}

/**
 * Notes with the times that were tapped in to a metronome, by `onGrid` and `lastingFrom`. Rests of before go, and notes that were not tapped keep
 * their lengths at the end.
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
  const sounding = notes.filter(({ at }) => at !== null);
  const onsets = onGrid(taps.slice(0, sounding.length), beat, grid);
  if (!onsets.length) return notes;
  const timed = lastingFrom(onsets, beats).map(({ of, length }): PhraseNote =>
    of === null ? { at: null, length } : { ...sounding[of]!, length },
  );
  return [...timed, ...sounding.slice(onsets.length)];
}

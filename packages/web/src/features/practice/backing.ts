import { type Sounding, voicings } from '@crow-ladder/core/chords';
import { mod } from '@crow-ladder/core';
import { QUARTER, type Run, type Schedule } from '@crow-ladder/core/run';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from '../../model/model.ts';
import { CHANGES, type Over, playedOver, type PlayedOver, slotAt } from '../../model/progression.ts';
import { type PracticeParams } from './params.ts';
import { type Backing } from './usePlayback.ts';

/** How loud chords are under a line through them where nothing else was set. */
const USUAL = 60;
/** How loud the chords of the progression are, 0 to 100; null where the chart has none. */
export const alongOf = (model: Model, { along, on }: Pick<PracticeParams, 'along' | 'on'>): number | null =>
  playedOver(model) === null ? null : (along ?? (on === CHANGES ? USUAL : 0));

/** The chords of a progression as they sound, in its order. */
const soundingOf = weakMapMemoize(({ slots }: PlayedOver) =>
  voicings(
    slots.map(({ classes, chord }): Sounding => ({
      classes,
      bass: chord.bass === null ? classes[0]! : mod(classes[0]! + chord.bass, 12),
    })),
  ),
);

const NONE: Backing = [];
/** When each chord sounds under what is played, struck anew in each bar; `from` is the beat of the progression that it begins on. */
export const backingFor = weakMapMemoize(
  (over: PlayedOver | null, schedule: Schedule | null, tempo: number, from: number): Backing => {
    if (!over || !schedule) return NONE;
    const beat = 60 / tempo;
    const many = Math.round((schedule.end - schedule.from) / beat);
    const chords = soundingOf(over);
    const { beats } = over.part;
    const last = over.slots.at(-1)!;
    const whole = last.at + last.beats;
    // Where a chord begins, or a bar: from there to the next such place.
    const places = Array.from({ length: Math.ceil((from + many) / whole) }, (_, round) =>
      [
        ...new Set([
          ...over.slots.map(({ at }) => at),
          ...Array.from({ length: whole / beats }, (_, bar) => bar * beats),
        ]),
      ].map((at) => at + round * whole),
    )
      .flat()
      .sort((a, b) => a - b);
    return places.flatMap((at, i) => {
      const until = Math.min(places[i + 1] ?? Infinity, from + many);
      const begins = Math.max(at, from);
      if (begins >= until) return [];
      const time = (b: number): number => schedule.from + (b - from) * beat;
      return [{ at: time(begins), until: time(until), pitches: chords[slotAt(over, at)]! }];
    });
  },
);

/** The chord over which a note of a run lies, and the next one; null where the chart has no progression. */
export function chordsAt(
  over: PlayedOver | null,
  run: Run,
  step: number,
): { readonly now: Over; readonly next: Over } | null {
  const note = run[Math.min(step, run.length - 1)];
  if (!over || !note) return null;
  const at = slotAt(over, note.start / QUARTER);
  return { now: over.slots[at]!, next: over.slots[(at + 1) % over.slots.length]! };
}

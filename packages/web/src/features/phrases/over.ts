import { chromaticName, plural, pretty } from '@crow-ladder/core';
import {
  type ChordAt,
  type NoteOver,
  overChords,
  type StartOver,
  startsOver,
} from '@crow-ladder/core/phrases';
import { QUARTER } from '@crow-ladder/core/run';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model, pitchName } from '../../model/model.ts';
import { type PhraseHere } from '../../model/phrases.ts';
import { ownChord, playedOver, type PlayedOver } from '../../model/progression.ts';
import { type PhraseParams } from './params.ts';

/** A phrase over chords. */
export interface PhraseOver {
  readonly over: PlayedOver;
  /** Where it could begin, where it fits best first. */
  readonly starts: readonly StartOver[];
  readonly start: StartOver;
  readonly notes: readonly NoteOver[];
}

const chordsOf = weakMapMemoize(({ slots }: PlayedOver): readonly ChordAt[] =>
  slots.map(({ at, beats, classes }) => ({ at: at * QUARTER, ticks: beats * QUARTER, classes })),
);
const overFor = weakMapMemoize(
  (over: PlayedOver, { tune }: PhraseHere, beat: number | null): PhraseOver | null => {
    const chords = chordsOf(over);
    const starts = startsOver(tune, chords);
    const start = starts.find(({ at }) => at === (beat ?? NaN) * QUARTER) ?? starts[0];
    return start ? { over, starts, start, notes: overChords(tune, chords, start.at) } : null;
  },
);
/** A phrase over the chart's progression, or over the chord of its scale; null where there is neither, or no note. */
export function overNow(model: Model, here: PhraseHere, { start }: PhraseParams): PhraseOver | null {
  const over = playedOver(model) ?? ownChord(model);
  return over && overFor(over, here, start);
}

/** Where a phrase begins, in words: "Bar 3, beat 1, on A♭7". */
export function startSaid({ over }: PhraseOver, { at }: StartOver): string {
  const beat = at / QUARTER;
  const { beats } = over.part;
  const slot = over.slots.findLast((it) => it.at <= beat)!;
  return `Bar ${Math.floor(beat / beats) + 1}, beat ${(beat % beats) + 1}, on ${slot.name}`;
}
/** How it fits there. */
export const fitSaid = ({ tones, rubs }: StartOver, many: number): string =>
  `${tones} of ${plural(many, 'note')} ${tones === 1 ? 'is' : 'are'} the chords’${rubs ? `, ${rubs} ${rubs === 1 ? 'rubs' : 'rub'}` : ', none rubs'}`;

/** What a note is over its chord: "C is the 3 of A♭7". */
export function noteOverSaid(
  model: Model,
  { over }: PhraseOver,
  { chord, pc, is, against }: NoteOver,
): string {
  const { name, classes } = over.slots[chord]!;
  const interval = pretty(chromaticName(pc - classes[0]!));
  const what = interval === '1' ? 'the root' : `the ${interval}`;
  const note = pitchName(model, pc);
  if (is === 'tone') return `${note}, ${what} of ${name}`;
  if (is === 'rub')
    return `${note}, ${what} over ${name}: rubs, a half step above its ${pitchName(model, against!)}`;
  return `${note}, ${what} over ${name}`;
}

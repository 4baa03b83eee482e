import { type Sounding, voicings } from '@crow-ladder/core/chords';
import { mod } from '@crow-ladder/core';
import { ANSWERED, QUARTER, type Run, type Schedule, type Turns } from '@crow-ladder/core/run';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from '../../model/model.ts';
import { chordAsked, chordFrom } from '../../model/chords.ts';
import {
  CHANGES,
  type Over,
  OWN,
  ownChord,
  playedOver,
  type PlayedOver,
  slotAt,
  vampOn,
  USUAL_BEATS,
} from '../../model/progression.ts';
import { type PracticeParams } from './params.ts';
import { type Backing } from '../../sound/usePlayback.ts';

type Asked = Pick<PracticeParams, 'along' | 'chords' | 'on'>;

/** What sounds under a drill, or would if it were turned up: the progression of the chart, one chord of its scale, or the scale's own; null where there is none. */
export function underneath(model: Model, { chords, on }: Pick<Asked, 'chords' | 'on'>): PlayedOver | null {
  const changes = playedOver(model);
  if (changes && (on === CHANGES || chords === null || chords === CHANGES)) return changes;
  const asked = chordFrom(chords ?? '');
  const one = asked && chordAsked(model, asked);
  return one ? vampOn(model, one.chord) : ownChord(model);
}
/** All that can sound under a drill. */
export function chordsUnder(
  model: Model,
  { chords }: Pick<Asked, 'chords'>,
): readonly { readonly id: string; readonly name: string; readonly now: boolean }[] {
  const now = underneath(model, { chords, on: '' });
  const all = [
    { id: CHANGES, of: playedOver(model), what: () => 'of the progression' },
    { id: OWN, of: ownChord(model), what: (name: string) => `${name}, of the scale itself` },
    { id: chords ?? '', of: now, what: (name: string) => name },
  ];
  return all.flatMap(({ id, of, what }, i) =>
    of && all.findIndex((it) => it.of === of) === i
      ? [{ id, name: what(of.slots[0]!.name), now: of === now }]
      : [],
  );
}

/** How loud chords are under a line through them, or where they were asked for, while nothing else was set. */
const USUAL = 60;
/** How loud chords are, 0 to 100. */
export function alongOf(model: Model, { along, chords, on }: Asked): number {
  const asked = along ?? (chords !== null || (on === CHANGES && playedOver(model)) ? USUAL : 0);
  return asked > 0 && underneath(model, { chords, on }) ? asked : 0;
}

/** Quarter notes a bar: those of the chords, where they are heard. */
export const metreOf = (model: Model, asked: Asked): number =>
  (asked.on === CHANGES || alongOf(model, asked) > 0 ? underneath(model, asked)?.part.beats : null) ??
  USUAL_BEATS;

/** A bar before so many that are played, the same object for the same number, so that nothing is computed anew for it. */
const afterBar = weakMapMemoize((played: number): Turns => ({ before: 1, played, after: 0 }));
/** Bars that are left free; null where none are. A line through chords keeps their time, and where no chord can sound no bar is kept for one. */
export function turnsOf(
  model: Model,
  { answer, leave, on, chords }: Pick<PracticeParams, 'answer' | 'leave' | 'on' | 'chords'>,
): Turns | null {
  if (on === CHANGES) return null;
  if (answer) return ANSWERED;
  return leave > 0 && underneath(model, { chords, on }) ? afterBar(leave) : null;
}

/** The chords of a progression as they sound, in its order. */
const soundingOf = weakMapMemoize(({ slots }: PlayedOver) =>
  voicings(
    slots.map(({ classes, chord }): Sounding => ({
      classes,
      bass: chord.bass === null ? classes[0]! : mod(classes[0]! + chord.bass, 12),
    })),
  ),
);

/** How often a bar of chords comes: in every bar, or with bars after it to play in. */
const everyOf = (turns: Turns | null): number => (turns && turns.before ? turns.before + turns.played : 1);
/** The beat of a progression that lies under a beat of what is played: in the bars to play in it stays at the last one of its bar. */
function beatUnder({ part: { beats } }: PlayedOver, turns: Turns | null, beat: number): number {
  const every = everyOf(turns);
  const bar = Math.floor(beat / beats);
  const under = Math.floor(bar / every) * beats;
  return bar % every === 0 ? under + beat - bar * beats : under + beats - 1;
}

const NONE: Backing = [];
/** When each chord sounds under what is played, struck anew in each bar; `from` is the beat that this begins on. */
export const backingFor = weakMapMemoize(
  (
    over: PlayedOver | null,
    schedule: Schedule | null,
    tempo: number,
    from: number,
    turns: Turns | null,
  ): Backing => {
    if (!over || !schedule) return NONE;
    const beat = 60 / tempo;
    const end = from + Math.round((schedule.end - schedule.from) / beat);
    const sounding = soundingOf(over);
    const { beats, bars } = over.part;
    const every = everyOf(turns);
    const time = (b: number): number => schedule.from + (b - from) * beat;
    const first = Math.floor(from / beats);
    return Array.from({ length: Math.ceil(end / beats) - first }, (_, i) => first + i).flatMap((bar) => {
      if (bar % every !== 0) return [];
      const { length } = bars[(bar / every) % bars.length]!;
      return Array.from({ length }, (_, k) => {
        const [at, until] = [k, k + 1].map((n) => bar * beats + (n * beats) / length) as [number, number];
        const pitches = sounding[slotAt(over, beatUnder(over, turns, at))]!;
        return { at: time(Math.max(at, from)), until: time(Math.min(until, end)), pitches };
      }).filter((chord) => chord.at < chord.until);
    });
  },
);

/** The chord over which a note of a run lies, and the next one. */
export function chordsAt(
  over: PlayedOver | null,
  run: Run,
  step: number,
  turns: Turns | null,
): { readonly now: Over; readonly next: Over } | null {
  const note = run[Math.min(step, run.length - 1)];
  if (!over || !note) return null;
  const at = slotAt(over, beatUnder(over, turns, note.start / QUARTER));
  return { now: over.slots[at]!, next: over.slots[(at + 1) % over.slots.length]! };
}

import { usualOf } from '@crow-ladder/core/kinds';
import { type RoundQuery } from '@crow-ladder/contract';
import { ok, refuse, type Refusal, type Result } from '@crow-ladder/core';
import {
  drill,
  type Drill,
  type Drilled,
  DRILLS,
  drillTitle,
  type DrillSpec,
} from '@crow-ladder/core/drills';
import { type Clef, type ScoreOptions } from '@crow-ladder/core/notation';
import {
  CALL_BARS,
  type Fingering,
  type NotesPerBeat,
  partOf,
  passingBetween,
  QUARTER,
  type Run,
  type Schedule,
  scheduleOf,
  type Strike,
  strokesOf,
  SWING,
  withAnswers,
} from '@crow-ladder/core/run';
import { type VoiceName } from '@crow-ladder/core/sound';
import { type Strung } from '../../sound/strings.ts';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from '../../model/model.ts';
import { struck } from '../../model/way.ts';
import { type Material, materialOf, materialsOf } from './material.ts';
import { type PracticeParams } from './params.ts';
import { drillWord } from './words.ts';

/** Quarter notes a bar. */
export const BEATS = 4;
const BAR = BEATS * QUARTER;

/** A drill as it is played: its notes with their fingers, in time. */
export interface PlayedDrill extends Pick<Drilled, 'group' | 'remark'> {
  readonly fingering: Fingering;
  readonly run: Run;
}

/** The notes of a drill on each lot of what is drilled, one after the other; lots that it cannot be played on are left out. */
function notesOf({ lots }: Material, spec: DrillSpec): Result<Drilled> {
  const all = lots.map((drilling) => drill(drilling, spec));
  const played = all.flatMap((it) => (it.ok ? [it.value] : []));
  const [first] = played;
  if (first) return ok({ ...first, notes: played.flatMap(({ notes }) => notes) });
  return all[0] ?? refuse('drill.notes', 'There is no position to drill here.');
}

/** By the drill in words, so that a step along it computes nothing. */
const playedFor = weakMapMemoize(
  (
    model: Model,
    material: Material,
    spec: string,
    touch: Strike,
    perBeat: NotesPerBeat,
    answer: boolean,
  ): Result<PlayedDrill> => {
    const found = notesOf(material, JSON.parse(spec) as DrillSpec);
    if (!found.ok) return found;
    const { notes, group, remark } = found.value;
    const done = struck(model, passingBetween(notes, perBeat), touch, perBeat, group);
    if (!done.ok) return done;
    const { fingering, run } = done.value;
    return ok({ fingering, run: answer ? withAnswers(run, BEATS) : run, group, remark });
  },
);

/** What is drilled, how, and what the log of practice knows it by. */
export interface Drilling {
  readonly drill: Drill;
  readonly spec: DrillSpec;
  readonly played: Result<PlayedDrill, Refusal>;
  /** Null where it cannot be played. */
  readonly log: (RoundQuery & { readonly name: string }) | null;
}

const drillingFor = weakMapMemoize(
  (
    model: Model,
    asked: DrillSpec | null,
    on: string,
    touch: Strike,
    perBeat: NotesPerBeat,
    answer: boolean,
  ): Drilling | null => {
    const material = materialOf(model, on, perBeat);
    if (!material) return null;
    const it = (asked && DRILLS.of(asked.kind)) ?? DRILLS.all()[0]!;
    const spec = asked ?? asUsual(model, on, it, perBeat);
    if (!material.ok) return { drill: it, spec, played: material, log: null };
    const name = materialsOf(model, on).find((m) => m.id === on)?.name ?? '';
    return {
      drill: it,
      spec,
      played: playedFor(model, material.value, JSON.stringify(spec), touch, perBeat, answer),
      log: {
        drill: drillWord(spec),
        shape: material.value.shape,
        perBeat,
        name: `${drillTitle(it, spec)} on ${name}`,
      },
    };
  },
);

/** The drill that is looked at; null where no position is in front. */
export const drilled = (
  model: Model,
  { drill: asked, on, touch, perBeat, answer }: PracticeParams,
): Drilling | null => drillingFor(model, asked, on, touch, perBeat, answer);

/** A drill with its usual options for what is drilled. */
export function asUsual(model: Model, on: string, it: Drill, perBeat: number): DrillSpec {
  const material = materialOf(model, on, perBeat);
  const any = material?.ok ? material : materialOf(model, '', perBeat);
  return any?.ok ? usualOf(it, any.value.lots[0]!) : { kind: it.kind };
}

/** The notes of a drill that are played. */
export const playedPart: (run: Run, from: number, to: number) => Run = weakMapMemoize(partOf);

/** Where what is played ends: with its bar, with the bars that are left free, or, of some notes alone, with their beat. */
const endFor = (part: boolean, answer: boolean): number =>
  part ? QUARTER : answer ? 2 * CALL_BARS * BAR : BAR;

/** How much of a beat its first eighth takes, in per cent; other notes do not swing. */
export const swingOf = ({ perBeat, swing }: Pick<PracticeParams, 'perBeat' | 'swing'>): number =>
  perBeat === 2 ? swing : SWING.least;

/** When everything of a drill sounds. */
export const scheduleFor = weakMapMemoize(
  (run: Run, tempo: number, swing: number, countIn: boolean, part: boolean, answer: boolean): Schedule =>
    scheduleOf(run, {
      tempo,
      swing,
      beatsPerBar: BEATS,
      countIn: countIn ? 1 : 0,
      endsOn: endFor(part, answer),
    }),
);

/** How a drill is written: to the end of its bar, or of the bars that are left free. */
export const writtenAs = weakMapMemoize((run: Run, answer: boolean, usual: Clef): ScoreOptions => {
  const last = run.at(-1);
  const end = endFor(false, answer);
  const until = last ? Math.ceil((last.start + last.length) / end) * end : 0;
  return { beats: BEATS, until, usual };
});
/** The strokes of a drill. */
export const strokesFor = weakMapMemoize(strokesOf);

/** Scale lengths from which an instrument is a bass, in mm. */
const BASS_MM = 750;
export const voiceOf = ({ state }: Model): VoiceName =>
  state.instrument.scaleLength >= BASS_MM ? 'bass' : 'guitar';
/** What the strings of the chart's instrument sound like: the wound ones are those with the highest numbers. */
export const strungOf = (model: Model): Strung => ({
  voice: voiceOf(model),
  plain: model.neck.open.length - model.state.instrument.wound,
});

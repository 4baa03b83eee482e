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
  barsOf,
  type Fingering,
  inTurns,
  type NotesPerBeat,
  partOf,
  passingBetween,
  QUARTER,
  type Run,
  type Schedule,
  type Step,
  scheduleOf,
  type Strike,
  strokesOf,
  SWING,
  type Turns,
} from '@crow-ladder/core/run';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from '../../model/model.ts';
import { struck } from '../../model/way.ts';
import { fingeringOf, type PhraseHere } from '../../model/phrases.ts';
import { type Material, materialOf, materialsOf, phraseOf } from './material.ts';
import { CHANGES } from '../../model/progression.ts';
import { metreOf, turnsOf } from './backing.ts';
import { type PracticeParams } from './params.ts';
import { drillWord } from './words.ts';

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
    beats: number,
    turns: Turns | null,
    asMade: PhraseHere | null,
  ): Result<PlayedDrill> => {
    const found = notesOf(material, JSON.parse(spec) as DrillSpec);
    if (!found.ok) return found;
    const { notes, group, remark } = found.value;
    // Straight through a phrase has the times and the strokes that it was made with.
    if (asMade)
      return ok({
        fingering: fingeringOf(asMade.way),
        run: turns ? inTurns(asMade.way.run, beats, turns) : asMade.way.run,
        group,
        remark,
      });
    const done = struck(model, passingBetween(notes, perBeat), touch, perBeat, group);
    if (!done.ok) return done;
    const { fingering, run } = done.value;
    return ok({ fingering, run: turns ? inTurns(run, beats, turns) : run, group, remark });
  },
);

/** What is drilled, how, and what the log of practice knows it by. */
export interface Drilling {
  readonly drill: Drill;
  readonly spec: DrillSpec;
  /** Quarter notes a bar, and which bars are left free. */
  readonly beats: number;
  readonly turns: Turns | null;
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
    beats: number,
    turns: Turns | null,
  ): Drilling | null => {
    const material = materialOf(model, on, perBeat);
    if (!material) return null;
    const phrase = phraseOf(model, on);
    const kinds = drillsOn(on, phrase !== null);
    const it = kinds.find(({ kind }) => kind === asked?.kind) ?? kinds[0]!;
    const spec = asked?.kind === it.kind ? asked : asUsual(model, on, it, perBeat);
    const time = { beats, turns };
    if (!material.ok) return { drill: it, spec, ...time, played: material, log: null };
    const name = materialsOf(model, on).find((m) => m.id === on)?.name ?? '';
    return {
      drill: it,
      spec,
      ...time,
      played: playedFor(
        model,
        material.value,
        JSON.stringify(spec),
        touch,
        perBeat,
        beats,
        turns,
        spec.kind === STRAIGHT.kind ? phrase : null,
      ),
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
export const drilled = (model: Model, params: PracticeParams): Drilling | null => {
  const { drill: asked, on, touch, perBeat } = params;
  return drillingFor(model, asked, on, touch, perBeat, metreOf(model, params), turnsOf(model, params));
};

const STRAIGHT = DRILLS.of('straight')!;
/** Drills that can be played on something: a line through chords would meet other ones in any order but its own; a phrase is played as it was made first. */
export function drillsOn(on: string, isPhrase: boolean): readonly Drill[] {
  if (on === CHANGES) return [STRAIGHT];
  return isPhrase ? [STRAIGHT, ...DRILLS.all().filter((it) => it !== STRAIGHT)] : DRILLS.all();
}

/** A drill with its usual options for what is drilled. */
export function asUsual(model: Model, on: string, it: Drill, perBeat: number): DrillSpec {
  const material = materialOf(model, on, perBeat);
  const any = material?.ok ? material : materialOf(model, '', perBeat);
  return any?.ok ? usualOf(it, any.value.lots[0]!) : { kind: it.kind };
}

/** The notes of a drill that are played. */
export const playedPart: (run: Run, from: number, to: number) => Run = weakMapMemoize(partOf);

/** Where what is played ends: with its bar, with the bars that are left free, or, of some notes alone, with their beat. */
const endFor = (part: boolean, beats: number, turns: Turns | null): number =>
  part ? QUARTER : (turns ? barsOf(turns) : 1) * beats * QUARTER;

/** Bars of a line, as they are written and practised (common practice, no source). */
const LINE = 4;
/** All of a run, and where it is longer than that the line of bars and the bar that a note lies in, by its first and last note. */
export function stretchesOf(run: Run, beats: number, step: number) {
  const barOf = (it: Step): number => Math.floor(it.start / (beats * QUARTER));
  const here = barOf(run[Math.min(step, run.length - 1)]!);
  const last = barOf(run.at(-1)!);
  const notesOf = (from: number, to: number): readonly [number, number] => [
    run.findIndex((it) => barOf(it) >= from),
    run.findLastIndex((it) => barOf(it) <= to),
  ];
  const from = here - (here % LINE);
  const to = Math.min(last, from + LINE - 1);
  return [
    { id: 'all', name: 'all of it', part: null },
    ...(last >= LINE && to > from
      ? [{ id: 'line', name: `bars ${from + 1} to ${to + 1}`, part: notesOf(from, to) } as const]
      : []),
    ...(last > 0 ? [{ id: 'bar', name: `bar ${here + 1}`, part: notesOf(here, here) } as const] : []),
  ] as const;
}

/** How much of a beat its first eighth takes, in per cent; other notes do not swing. */
export const swingOf = ({ perBeat, swing }: Pick<PracticeParams, 'perBeat' | 'swing'>): number =>
  perBeat === 2 ? swing : SWING.least;

/** When everything of a drill sounds. */
export const scheduleFor = weakMapMemoize(
  (
    run: Run,
    tempo: number,
    swing: number,
    countIn: boolean,
    part: boolean,
    beats: number,
    turns: Turns | null,
  ): Schedule =>
    scheduleOf(run, {
      tempo,
      swing,
      beatsPerBar: beats,
      countIn: countIn ? 1 : 0,
      endsOn: endFor(part, beats, turns),
    }),
);

/** How a drill is written: to the end of its bar, or of the bars that are left free. */
export const writtenAs = weakMapMemoize(
  (run: Run, beats: number, turns: Turns | null, usual: Clef): ScoreOptions => {
    const last = run.at(-1);
    const end = endFor(false, beats, turns);
    const until = last ? Math.ceil((last.start + last.length) / end) * end : 0;
    return { beats, until, usual };
  },
);
/** The strokes of a drill. */
export const strokesFor = weakMapMemoize(strokesOf);

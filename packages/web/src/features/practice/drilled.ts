import {
  drill, type Drill, type Drilled, type Drilling, drillOf, DRILLS, type DrillSpec, type Fingering, type NotesPerBeat, partOf, placeId, type Refusal, type Result, type Route, type Run,
  type Schedule, scheduleOf, SWING, usualDrill, type VoiceName,
} from '@crow-ladder/core'; // prettier-ignore
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model } from '../../model/model.ts';
import { type Strike, struck } from '../../model/way.ts';
import { type PracticeParams } from './params.ts';

/** What is drilled: the position in front; null where there is none. */
const drillingOf = weakMapMemoize(({ neck, key, positions, front, state }: Model): Drilling | null =>
  front && positions.ok
    ? {
        neck,
        key,
        notes: front.position.spots,
        layout: state.layout,
        positions: positions.value,
        front: front.position,
      }
    : null,
);

/** Notes with the fingers that take them in the shape: a drill is played with those that were learned for it. */
function inHand(model: Model, notes: Route): Route {
  const steps = model.fingering()?.steps ?? [];
  const by = new Map(steps.map(({ spot, finger }) => [placeId(spot), finger]));
  return notes.map((note) => {
    const finger = by.get(placeId(note));
    return finger ? { ...note, by: finger } : note;
  });
}

/** A drill as it is played: its notes with their fingers, in time, or why it cannot be. */
export interface PlayedDrill extends Pick<Drilled, 'group' | 'remark'> {
  readonly fingering: Fingering;
  readonly run: Run;
}

/** By the drill in words, so that a step along it computes nothing. */
const playedFor = weakMapMemoize(
  (model: Model, spec: string, touch: Strike, perBeat: NotesPerBeat): Result<PlayedDrill, Refusal> => {
    const found = drill(drillingOf(model)!, JSON.parse(spec) as DrillSpec);
    if (!found.ok) return found;
    const { notes, group, remark } = found.value;
    return { ok: true, value: { ...struck(model, inHand(model, notes), touch, perBeat), group, remark } };
  },
);

/** The drill that is looked at, with its options and its notes; null where no position is in front. */
export function drilled(
  model: Model,
  { drill: asked, touch, perBeat }: PracticeParams,
): { readonly drill: Drill; readonly spec: DrillSpec; readonly played: Result<PlayedDrill, Refusal> } | null {
  const drilling = drillingOf(model);
  if (!drilling) return null;
  const it = (asked && drillOf(asked.kind)) ?? DRILLS[0]!;
  const spec = asked ?? usualDrill(it, drilling);
  return { drill: it, spec, played: playedFor(model, JSON.stringify(spec), touch, perBeat) };
}

/** The notes of a drill that are played. */
export const playedPart: (run: Run, from: number, to: number) => Run = weakMapMemoize(partOf);

/** Quarter notes a bar. */
export const BEATS = 4;
/** When everything of a drill sounds. */
export const scheduleFor = weakMapMemoize(
  (
    run: Run,
    tempo: number,
    perBeat: NotesPerBeat,
    swing: number,
    countIn: boolean,
    endsOn: 'bar' | 'beat',
  ): Schedule =>
    scheduleOf(run, {
      tempo,
      swing: perBeat === 2 ? swing : SWING.least,
      beatsPerBar: BEATS,
      countIn: countIn ? 1 : 0,
      endsOn,
    }),
);

/** A drill with its usual options for the position in front. */
export const asUsual = (model: Model, it: Drill): DrillSpec => usualDrill(it, drillingOf(model)!);

/** Scale lengths from which an instrument is a bass, in mm. */
const BASS_MM = 750;
export const voiceOf = ({ state }: Model): VoiceName =>
  state.instrument.scaleLength >= BASS_MM ? 'bass' : 'guitar';

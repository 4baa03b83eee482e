import { placeId, type Place } from '@crow-ladder/core';
import { type ExtraNote, type NoteVerdict } from '@crow-ladder/core/listening';
import { type Run } from '@crow-ladder/core/run';
import { type Layers, type Link, type Mark } from '@crow-ladder/picture';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model, pitchName } from '../model/model.ts';
import { told } from './told.ts';

/** What was heard of a run, which its pitches tell: nothing of another one. */
export interface HeardNotes {
  readonly of: string;
  readonly verdicts: ReadonlyMap<number, NoteVerdict>;
  /** What nobody asked for, by the step before it. */
  readonly extra: readonly ExtraNote[];
}
export const pitchesOf: (run: Run) => string = weakMapMemoize((run: Run) =>
  run.map(({ spot: { string, midi } }) => `${string}.${midi}`).join(' '),
);
/** What is heard now, told before all that follows from it: an answer is not to wait for the neck. */
export const heardNow = told<HeardNotes>();
/** What was heard of a run the last time, by its steps; null where that was another one. */
export const heardOf = (heard: HeardNotes | null, run: Run): HeardNotes | null =>
  heard?.of === pitchesOf(run) ? heard : null;

/** How each verdict reads behind the name of a note. */
const SAID = {
  right: 'heard right',
  wrong: 'heard wrong',
  missed: 'not heard',
  extra: 'one too many beside it',
} as const;

/** Marks as their notes were heard the last time, where that was this run, and for a wrong one, or one too many, where on the string that would be. */
export function withHeard(
  model: Model,
  layers: Partial<Layers>,
  run: Run,
  notes: HeardNotes | null,
): Partial<Layers> {
  const heard = heardOf(notes, run);
  if (!heard) return layers;
  const { verdicts, extra } = heard;
  const at = new Map<number, NoteVerdict>();
  for (const [step, verdict] of verdicts) {
    const id = placeId(run[step]!.spot);
    // A place that was played twice shows what was wrong there.
    if ((at.get(id)?.is ?? 'right') === 'right') at.set(id, verdict);
  }
  const strayed = [
    ...[...verdicts].flatMap(([step, v]) => (v.is === 'wrong' ? [{ step, midi: v.midi }] : [])),
    ...extra.map(({ after, midi }) => ({ step: Math.max(0, after), midi })),
  ];
  const strays = strayed.flatMap(({ step, midi }): readonly Link[] => {
    const from = run[step]!.spot;
    const fret = from.fret + midi - from.midi;
    const to: Place = { string: from.string, fret };
    return midi !== from.midi && fret >= 0 && fret <= model.neck.frets
      ? [{ from, to, kind: 'miss', label: pitchName(model, midi) }]
      : [];
  });
  const tooMany = new Set(extra.map(({ after }) => placeId(run[Math.max(0, after)]!.spot)));
  return {
    ...layers,
    links: [...(layers.links ?? []), ...strays],
    marks: (layers.marks ?? []).map((mark): Mark => {
      const was = at.get(placeId(mark));
      if (!was) return mark;
      const more = tooMany.has(placeId(mark)) ? `, ${SAID.extra}` : '';
      return { ...mark, heard: was.is, name: () => `${mark.name()}, ${SAID[was.is]}${more}` };
    }),
  };
}

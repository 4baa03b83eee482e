import { placeId, type Place } from '@crow-ladder/core';
import { type NoteVerdict } from '@crow-ladder/core/listening';
import { type Run } from '@crow-ladder/core/run';
import { type Layers, type Link, type Mark } from '@crow-ladder/picture';
import { weakMapMemoize } from '@reduxjs/toolkit';
import { type Model, pitchName } from '../model/model.ts';
import { told } from './told.ts';

/** What was heard of a run, which its pitches tell: nothing of another one. */
export interface HeardNotes {
  readonly of: string;
  readonly verdicts: ReadonlyMap<number, NoteVerdict>;
}
export const pitchesOf: (run: Run) => string = weakMapMemoize((run: Run) =>
  run.map(({ spot: { string, midi } }) => `${string}.${midi}`).join(' '),
);
/** What is heard now, told before all that follows from it: an answer is not to wait for the neck. */
export const heardNow = told<HeardNotes>();
/** What was heard of a run the last time, by its steps; null where that was another one. */
export const heardOf = (heard: HeardNotes | null, run: Run): HeardNotes['verdicts'] | null =>
  heard?.of === pitchesOf(run) ? heard.verdicts : null;

/** How each verdict reads behind the name of a note. */
const SAID = { right: 'heard right', wrong: 'heard wrong', missed: 'not heard' } as const;

/** Marks as their notes were heard the last time, where that was this run, and for a wrong one where on its string that would be. */
export function withHeard(
  model: Model,
  layers: Partial<Layers>,
  run: Run,
  notes: HeardNotes | null,
): Partial<Layers> {
  const verdicts = heardOf(notes, run);
  if (!verdicts) return layers;
  const at = new Map<number, NoteVerdict>();
  for (const [step, verdict] of verdicts) {
    const id = placeId(run[step]!.spot);
    // A place that was played twice shows what was wrong there.
    if ((at.get(id)?.is ?? 'right') === 'right') at.set(id, verdict);
  }
  const wrong = [...verdicts].flatMap(([step, v]): readonly Link[] => {
    if (v.is !== 'wrong') return [];
    const from = run[step]!.spot;
    const fret = from.fret + v.midi - from.midi;
    const to: Place = { string: from.string, fret };
    return fret >= 0 && fret <= model.neck.frets
      ? [{ from, to, kind: 'miss', label: pitchName(model, v.midi) }]
      : [];
  });
  return {
    ...layers,
    links: [...(layers.links ?? []), ...wrong],
    marks: (layers.marks ?? []).map((mark): Mark => {
      const heard = at.get(placeId(mark));
      return heard ? { ...mark, heard: heard.is, name: () => `${mark.name()}, ${SAID[heard.is]}` } : mark;
    }),
  };
}

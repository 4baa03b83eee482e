import { placeId, type Place } from '@crow-ladder/core';
import { type NoteVerdict } from '@crow-ladder/core/listening';
import { type Run } from '@crow-ladder/core/run';
import { type Layers, type Link, type Mark } from '@crow-ladder/picture';
import { type Shown } from '../../model/marks.ts';
import { type Model, pitchName } from '../../model/model.ts';
import { overMarks } from '../../model/overMarks.ts';
import { CHANGES, playedOver } from '../../model/progression.ts';
import { wayLayers } from '../../model/way.ts';
import { answerOf } from './asking.ts';
import { chordsAt } from './backing.ts';
import { drilled } from './drilled.ts';
import { type PracticeParams, pitchesOf } from './params.ts';

/** What the neck shows of a drill: its notes, and the one that is heard. What is to be said stands on no mark before it sounded. */
export function scene(model: Model, params: PracticeParams, shown: Shown): Partial<Layers> {
  const now = drilled(model, params);
  const played = now?.played.ok ? now.played.value : null;
  const { say, choosing, step } = params;
  const asks = say !== 'no' && played !== null;
  const drawn = wayLayers(
    model,
    step,
    asks ? { ...shown, labels: 'none' } : shown,
    played?.fingering.steps,
    'drill',
  );
  // A drill goes back and forth over a shape that is marked already.
  const layers = { ...drawn, path: [], links: [] };
  const over = params.on === CHANGES && played && !shown.rootsOnly ? playedOver(model) : null;
  const chord = over && chordsAt(over, played!.run, step, null)?.now;
  // The neck follows the chords.
  if (chord && !asks) return { ...layers, marks: overMarks(model, chord, shown) };
  if (!asks) {
    const { heard } = params;
    return heard && played && heard.of === pitchesOf(played.run)
      ? withHeard(model, layers, played.run, heard.verdicts)
      : layers;
  }
  const heard = played.run[choosing ? step - 1 : step]?.spot;
  const quiet = (mark: Mark): Mark => {
    const said = heard && placeId(mark) === placeId(heard);
    const where = `String ${mark.string}, ${mark.fret ? `fret ${mark.fret}` : 'open'}`;
    const answer = said ? answerOf(model, say, now!.drill.kind, heard) : '';
    return { ...mark, label: answer.split(' ')[0]!, name: () => `${where}: ${answer || 'to be said'}` };
  };
  return { ...layers, marks: (drawn.marks ?? []).map(quiet) };
}

/** How each verdict reads behind the name of a note. */
const SAID = { right: 'heard right', wrong: 'heard wrong', missed: 'not heard' } as const;

/** Marks as their notes were heard the last time, and for a wrong one where on its string that would be. */
function withHeard(
  model: Model,
  layers: Partial<Layers>,
  run: Run,
  verdicts: ReadonlyMap<number, NoteVerdict>,
): Partial<Layers> {
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

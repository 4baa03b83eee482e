import { capital } from '@crow-ladder/core';
import { STRIKES, SWING } from '@crow-ladder/core/run';
import { clefOf, type Model } from '../../model/model.ts';
import { type OnPaper } from '../../paper/onPaper.ts';
import { drilled, strokesFor, swingOf, writtenAs } from './drilled.ts';
import { NOTE_LENGTHS } from '../../ui/labels.ts';
import { named, type PracticeParams } from './params.ts';

/** What is practised, with the tempo that it is practised at. */
export function onPaper(model: Model, params: PracticeParams): OnPaper | null {
  const now = drilled(model, params);
  if (!now?.played.ok || !now.log || !now.played.value.run.length) return null;
  const { run, fingering, remark } = now.played.value;
  const { tempo, ladder, perBeat, touch, school, begins } = params;
  const swing = swingOf(params);
  const beat = NOTE_LENGTHS.find(({ id }) => id === String(perBeat))!.name;
  return {
    sheet: 'practice',
    title: capital(now.log.name),
    said: [
      `${capital(beat)}, ${now.beats}/4, ${tempo} beats a minute${ladder ? `, on up to ${ladder.to} by ${ladder.step} after ${ladder.rounds} clean` : ''}.`,
      `${capital(named(STRIKES, touch))}.`,
      ...(swing > SWING.least ? [`Swing: the second eighth falls at ${swing} per cent of the beat.`] : []),
      ...(remark ? [remark.message] : []),
    ],
    run,
    steps: fingering.steps,
    as: writtenAs(run, now.beats, now.turns, clefOf(model)),
    strokes: strokesFor(run, school, begins),
  };
}

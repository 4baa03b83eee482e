import { placeId } from '@crow-ladder/core';
import { type Layers, type Mark } from '@crow-ladder/picture';
import { withHeard } from '../../hearing/heardNotes.ts';
import { type Shown } from '../../model/marks.ts';
import { type Model } from '../../model/model.ts';
import { overMarks } from '../../model/overMarks.ts';
import { CHANGES, playedOver } from '../../model/progression.ts';
import { wayLayers } from '../../model/way.ts';
import { answerOf } from './asking.ts';
import { chordsAt } from './backing.ts';
import { drilled } from './drilled.ts';
import { type PracticeParams } from './params.ts';

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
  if (!asks) return played ? withHeard(model, layers, played.run, params.heard) : layers;
  const heard = played.run[choosing ? step - 1 : step]?.spot;
  const quiet = (mark: Mark): Mark => {
    const said = heard && placeId(mark) === placeId(heard);
    const where = `String ${mark.string}, ${mark.fret ? `fret ${mark.fret}` : 'open'}`;
    const answer = said ? answerOf(model, say, now!.drill.kind, heard) : '';
    return { ...mark, label: answer.split(' ')[0]!, name: () => `${where}: ${answer || 'to be said'}` };
  };
  return { ...layers, marks: (drawn.marks ?? []).map(quiet) };
}

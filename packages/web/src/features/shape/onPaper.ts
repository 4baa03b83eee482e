import { barsUp } from '../../model/music.ts';
import { clefOf, type Model, played } from '../../model/model.ts';
import { USUAL_BEATS } from '../../model/progression.ts';
import { type OnPaper } from '../../paper/onPaper.ts';
import { type ShapeParams } from './params.ts';
import { shownFingering } from './shown.ts';

/** The position in front up and down, with the fingers that are looked at. */
export function onPaper(model: Model, params: ShapeParams): OnPaper | null {
  const up = shownFingering(model, { ...params, down: false });
  const down = shownFingering(model, { ...params, down: true });
  if (!model.front || !up.steps.length) return null;
  const steps = [...up.steps, ...down.steps.slice(1)];
  const run = played({ ...up, steps }, params.slurred ? 'slurred' : 'picked');
  return {
    sheet: 'position',
    title: `${model.names()[model.front.position.index]!}, up and down`,
    said: [],
    run,
    steps: up.steps,
    as: { beats: USUAL_BEATS, until: barsUp(run, USUAL_BEATS), usual: clefOf(model) },
    strokes: [],
  };
}

import { type Layers } from '@crow-ladder/picture';
import { type Shown } from '../../model/marks.ts';
import { type Model } from '../../model/model.ts';
import { wayLayers } from '../../model/way.ts';
import { drilled } from './drilled.ts';
import { type PracticeParams } from './params.ts';

/** What the neck shows of a drill: its notes, and the one that is heard. */
export function scene(model: Model, params: PracticeParams, shown: Shown): Partial<Layers> {
  const now = drilled(model, params);
  const steps = now?.played.ok ? now.played.value.fingering.steps : undefined;
  const drawn = wayLayers(model, params.step, shown, steps, 'drill');
  // A drill goes back and forth over a shape that is marked already.
  return { ...drawn, path: [], links: [] };
}

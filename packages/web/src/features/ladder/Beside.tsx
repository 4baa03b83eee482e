import { geometryOf } from '@crow-ladder/picture';
import { type BesideProps } from '../../task/task.ts';
import { figureOf } from '../../model/figure.ts';
import { Boundaries } from './Boundaries.tsx';
import { climbed } from './climbed.ts';
import { type LadderParams, withCuts } from './params.ts';
import { pickedPlan } from './planning.ts';
import { Stairs } from './Stairs.tsx';

/** Beside an upright neck: the hand's stairs of a climb, the boundaries of the regions, else the rungs. */
export function Beside({ model, params, onParams, look, rungs }: BesideProps<LadderParams>) {
  const geometry = geometryOf(figureOf(model.state.instrument, model.accidentals, look));
  if (params.view === 'regions')
    return (
      <Boundaries
        geometry={geometry}
        cuts={params.cuts}
        onCuts={(cuts) => onParams(withCuts(params, cuts))}
      />
    );
  const played = params.view === 'climbs' ? climbed(model, params)?.played : undefined;
  const steps = played?.ok
    ? played.value.fingering.steps
    : params.view === 'plan'
      ? pickedPlan(model, params)?.steps
      : undefined;
  return steps ? <Stairs steps={steps} geometry={geometry} step={params.step} /> : rungs;
}

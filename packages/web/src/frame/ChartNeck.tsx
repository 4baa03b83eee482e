import { type Settings } from '@crow-ladder/contract';
import { type Place, unisons } from '@crow-ladder/core';
import { type Fingering } from '@crow-ladder/core/run';
import { memo, type ReactNode, type Ref, useCallback } from 'react';
import { spotHead, spotMore } from '../model/describe.ts';
import { type Model } from '../model/model.ts';
import { type Change, withSpot } from '../model/moves.ts';
import { Neck, type NeckHandle } from '../ui/neck/Neck.tsx';
import { type SceneSource } from '../ui/neck/source.ts';
import { type Picking } from '../task/task.ts';

interface ChartNeckProps {
  readonly source: SceneSource;
  readonly model: Model;
  /** What is shown in its place; null where it is shown itself. */
  readonly instead: Model | null;
  /** The fingers that are shown. */
  readonly fingering: () => Fingering | null;
  readonly spelling: Settings['spelling'];
  readonly onChange: (change: Change) => void;
  /** What the task does with a spot that is chosen, where it does not become the root. */
  readonly picking: Picking<unknown> | null;
  readonly onParams: (params: unknown) => void;
  readonly beside: ReactNode;
  readonly ref: Ref<NeckHandle>;
}

/** The chart on its neck. What is drawn comes from the source; the model, a moment later, is for what is said. */
export const ChartNeck = memo(function ChartNeck({
  source,
  model,
  instead,
  fingering,
  spelling,
  onChange,
  picking,
  onParams,
  beside,
  ref,
}: ChartNeckProps) {
  const say = useCallback(
    (place: Place) =>
      picking?.say(place) ??
      (instead
        ? { head: `Moved, not applied: ${spotHead(instead, place, () => null)}`, more: () => '' }
        : { head: spotHead(model, place, fingering), more: () => spotMore(model, place) }),
    [model, instead, fingering, picking],
  );
  const echoes = useCallback((p: Place) => unisons(model.neck, p.string, p.fret), [model]);
  const onPick = useCallback(
    (place: Place) => {
      if (!picking) return onChange((s) => withSpot(s, place, spelling));
      if (picking.change) onChange(picking.change(place));
      onParams(picking.pick(place));
    },
    [onChange, spelling, picking, onParams],
  );
  return (
    <Neck
      ref={ref}
      source={source}
      name={`Neck, ${model.neck.open.length} strings, ${model.neck.frets} frets${model.neck.capo ? ` from the capo at ${model.neck.capo}` : ''}`}
      root={model.state.at}
      onPick={onPick}
      say={say}
      {...(picking ? { picks: picking } : {})}
      echoes={echoes}
      beside={beside}
    />
  );
});

import { type Settings } from '@crow-ladder/contract';
import { memo, type ReactNode, type Ref, useCallback, useMemo } from 'react';
import { type Change, withSpot } from '../../app/moves.ts';
import { useApp } from '../../app/store.ts';
import { Neck } from '../../ui/neck/Neck.tsx';
import { describeSpot, marksOf, modelOf } from './model.ts';
import { useLook } from './useLook.ts';

interface ChartNeckProps {
  readonly settings: Settings;
  readonly onChange: (change: Change) => void;
  readonly beside: ReactNode;
  readonly ref: Ref<SVGSVGElement>;
}

/** The chart on its neck: the one part of the page that is drawn anew in the very frame of a change. */
export const ChartNeck = memo(function ChartNeck({ settings, onChange, beside, ref }: ChartNeckProps) {
  const state = useApp((s) => s.workbench.draft.state);
  const chosen = useApp((s) => s.workbench.chosen);
  const rootsOnly = useApp((s) => s.view.rootsOnly);
  const labels = useApp((s) => s.view.labels) ?? settings.labels;
  const model = modelOf(state, settings, chosen);
  const look = useLook(state.instrument, settings);
  const marks = useMemo(
    () => marksOf(model, labels, { rootsOnly, colours: settings.colours }),
    [model, labels, rootsOnly, settings.colours],
  );
  const describe = useCallback((string: number, fret: number) => describeSpot(model, string, fret), [model]);
  const onPick = useCallback(
    (string: number, fret: number) => onChange((s) => withSpot(s, string, fret, settings.spelling)),
    [onChange, settings.spelling],
  );
  return (
    <Neck
      ref={ref}
      instrument={state.instrument}
      look={look}
      marks={marks}
      name={`Neck, ${state.instrument.tuning.length} strings, ${model.neck.frets} frets`}
      root={state}
      onPick={onPick}
      describe={describe}
      beside={beside}
    />
  );
});

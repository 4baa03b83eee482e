import { type Settings } from '@crow-ladder/contract';
import { unisons } from '@crow-ladder/core';
import { memo, type ReactNode, type Ref, useCallback, useMemo } from 'react';
import { type Change, withSpot } from '../../app/moves.ts';
import { useApp } from '../../app/store.ts';
import { type NeckLink } from '../../ui/neck/Links.tsx';
import { Neck } from '../../ui/neck/Neck.tsx';
import { type Lesson, picture, teach } from './lesson.ts';
import { describeSpot, marksOf, modelOf } from './model.ts';
import { useLook } from './useLook.ts';

interface ChartNeckProps {
  readonly settings: Settings;
  readonly onChange: (change: Change) => void;
  /** Shown instead of the chart's position, where there is one. */
  readonly lesson: Lesson | null;
  readonly beside: ReactNode;
  readonly ref: Ref<SVGSVGElement>;
}

const NONE: readonly NeckLink[] = [];

/** The chart on its neck: the one part of the page that is drawn anew in the very frame of a change. */
export const ChartNeck = memo(function ChartNeck({
  settings,
  onChange,
  lesson,
  beside,
  ref,
}: ChartNeckProps) {
  const state = useApp((s) => s.workbench.draft.state);
  const chosen = useApp((s) => s.workbench.chosen);
  const rootsOnly = useApp((s) => s.view.rootsOnly);
  const labels = useApp((s) => s.view.labels) ?? settings.labels;
  const model = modelOf(state, settings, chosen);
  const look = useLook(state.instrument, settings);
  const { marks, links } = useMemo(() => {
    const shown = { labels, rootsOnly, colours: settings.colours };
    return lesson
      ? picture(model, lesson, teach(model, lesson, settings), shown)
      : { marks: marksOf(model, shown), links: NONE };
  }, [model, lesson, labels, rootsOnly, settings]);
  const describe = useCallback((string: number, fret: number) => describeSpot(model, string, fret), [model]);
  const echoes = useCallback((string: number, fret: number) => unisons(model.neck, string, fret), [model]);
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
      links={links}
      accidentals={model.accidentals}
      name={`Neck, ${state.instrument.tuning.length} strings, ${model.neck.frets} frets`}
      root={state}
      onPick={onPick}
      describe={describe}
      echoes={echoes}
      beside={beside}
    />
  );
});

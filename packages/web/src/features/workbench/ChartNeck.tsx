import { type Settings } from '@crow-ladder/contract';
import { unisons } from '@crow-ladder/core';
import {
  memo,
  type ReactNode,
  type Ref,
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { useStore } from 'react-redux';
import { follower } from '../../app/later.ts';
import { type Change, withSpot } from '../../app/moves.ts';
import { type State } from '../../app/store.ts';
import { type NeckLink } from '../../ui/neck/Links.tsx';
import { Neck, type Repaint } from '../../ui/neck/Neck.tsx';
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

/** Whether two states show the same on the neck. */
const sameChart = (a: State, b: State): boolean =>
  a.workbench.draft.state === b.workbench.draft.state &&
  a.workbench.chosen === b.workbench.chosen &&
  a.view === b.view;

/** Whether two states are drawn on the same bare neck, so that nothing but its marks and open strings differ. */
function sameBoard(a: State, b: State): boolean {
  const [it, other] = [a.workbench.draft.state.instrument, b.workbench.draft.state.instrument];
  return (
    a.view.zoom === b.view.zoom &&
    (it === other ||
      (it.tuning.length === other.tuning.length &&
        it.frets === other.frets &&
        it.capo === other.capo &&
        it.wound === other.wound &&
        it.handed === other.handed))
  );
}

/** What a state shows on the neck, without a lesson. */
function chartOf({ workbench: { draft, chosen }, view }: State, settings: Settings) {
  const model = modelOf(draft.state, settings, chosen);
  const labels = view.labels ?? settings.labels;
  return { model, shown: { labels, rootsOnly: view.rootsOnly, colours: settings.colours } };
}

/**
 * The chart on its neck: the one part of the page that is drawn anew in the very frame of a change. On the same bare
 * neck the marks are repainted straight from the store, and the render follows a moment later.
 */
export const ChartNeck = memo(function ChartNeck({
  settings,
  onChange,
  lesson,
  beside,
  ref,
}: ChartNeckProps) {
  const store = useStore<State>();
  const repaint = useRef<Repaint>(null);
  const [drawn, draw] = useState(() => store.getState());
  const latest = useRef(drawn);
  useEffect(() => {
    const { ask, callOff } = follower(() => draw(latest.current));
    const render = (): void => {
      repaint.current?.(null);
      draw((latest.current = store.getState()));
    };
    const follow = (): void => {
      const before = latest.current;
      const now = store.getState();
      if (sameChart(before, now)) return;
      if (lesson || !sameBoard(before, now)) return render();
      latest.current = now;
      const { model, shown } = chartOf(now, settings);
      repaint.current?.({
        instrument: model.state.instrument,
        marks: marksOf(model, shown),
        accidentals: model.accidentals,
      });
      ask();
    };
    render();
    const leave = store.subscribe(follow);
    return () => {
      leave();
      callOff();
    };
  }, [store, settings, lesson]);
  useLayoutEffect(() => {
    if (drawn === latest.current) repaint.current?.(null);
  }, [drawn]);

  const { model, shown } = useMemo(() => chartOf(drawn, settings), [drawn, settings]);
  const { state } = model;
  const look = useLook(state.instrument, settings);
  const { marks, links } = useMemo(
    () =>
      lesson
        ? picture(model, lesson, teach(model, lesson, settings), shown)
        : { marks: marksOf(model, shown), links: NONE },
    [model, shown, lesson, settings],
  );
  const describe = useCallback((string: number, fret: number) => describeSpot(model, string, fret), [model]);
  const echoes = useCallback((string: number, fret: number) => unisons(model.neck, string, fret), [model]);
  const onPick = useCallback(
    (string: number, fret: number) => onChange((s) => withSpot(s, string, fret, settings.spelling)),
    [onChange, settings.spelling],
  );
  return (
    <Neck
      ref={ref}
      repaint={repaint}
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

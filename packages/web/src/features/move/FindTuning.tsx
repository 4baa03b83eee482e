import { list, plural, resolveScale, note, tuningText, TUNINGS, pretty } from '@crow-ladder/core';
import { type Fitted, type FitShape } from '@crow-ladder/core/moves';
import { type ChartSummary } from '@crow-ladder/contract';
import { useMemo, useState } from 'react';
import { LAST_CHANGED, server } from '../../app/api.ts';
import { type PanelProps } from '../../task/task.ts';
import { type Model } from '../../model/model.ts';
import { type FitWork } from '../../workers/fitter.ts';
import { useWork, type Work } from '../../workers/useWork.ts';
import { Switch } from '../../ui/Switch.tsx';
import { type MoveParams } from './params.ts';
import { toStringsTyped } from './target.ts';

const NONE: readonly never[] = [];
/** How many tunings are listed. */
const LISTED = 12;
const startFitter = (): Worker =>
  new Worker(new URL('../../workers/fitter.ts', import.meta.url), { type: 'module' });

/** The shape of a saved chart. */
const shapeOfChart = ({ about: { key, layout } }: ChartSummary): FitShape[] => {
  const scale = resolveScale(key.scale);
  return scale.ok ? [{ key: { root: note(key.root), scale: scale.value }, layout }] : [];
};

/** Why a tuning stands where it does. */
function whySaid({ shifts, stretches, over, open, halfSteps }: Fitted): string {
  return [
    shifts ? plural(shifts, 'shift') : 'no shift',
    stretches ? `${stretches} stretched` : 'no stretch',
    ...(over ? [`${plural(over, 'fret')} of reach beyond one finger a fret`] : []),
    `${open[0]} of ${plural(open[1], 'open string')} in the scale`,
    halfSteps ? `${plural(halfSteps, 'half step')} of retuning` : 'no retuning',
  ].join(', ');
}

const stateSaid = (work: Work<readonly Fitted[]>, many: number): string =>
  work.is === 'working'
    ? `Tried ${work.done} of ${plural(many, 'tuning')}.`
    : work.is === 'done'
      ? `${plural(many, 'tuning')} tried.`
      : work.is === 'calledOff'
        ? 'The search was called off.'
        : 'The search could not be loaded.';

/** The tunings on which one or several charts lie best. */
export function FindTuning({ model, params, onParams }: PanelProps<MoveParams>) {
  const own = server.useInstrumentsQuery().data ?? NONE;
  const charts = server.useChartsQuery(LAST_CHANGED).data?.charts ?? NONE;
  const [chosen, setChosen] = useState<readonly string[]>([]);
  const { instrument } = model.state;
  const task = useMemo((): FitWork => {
    const table = [
      ...TUNINGS.map(({ name, tuning }) => ({ name, tuning })),
      ...own.map(({ instrument: it }) => ({ name: it.name, tuning: it.tuning })),
      { name: instrument.name, tuning: instrument.tuning },
    ];
    const tunings = table.filter(
      (t, i) =>
        (params.anyStrings || t.tuning.length === instrument.tuning.length) &&
        table.findIndex((o) => o.tuning.join() === t.tuning.join()) === i,
    );
    const also = charts.filter((c) => chosen.includes(c.id)).flatMap(shapeOfChart);
    return { tunings, shapes: [shapeHere(model), ...also], on: instrument, hand: model.hand };
  }, [model, own, instrument, params.anyStrings, charts, chosen]);
  const { work, cancel, again } = useWork<FitWork, readonly Fitted[]>(startFitter, task);
  const fitted = work.is === 'done' ? work.answer : NONE;
  const misfits = fitted.filter((f) => f.why !== null).length;
  return (
    <div className="grid gap-x-10 gap-y-4 *:min-w-0 lg:grid-cols-[minmax(0,4fr)_minmax(0,8fr)]">
      <div className="flex flex-col gap-3">
        <Switch on={params.anyStrings} onChange={(anyStrings) => onParams({ ...params, anyStrings })}>
          Any number of strings
        </Switch>
        {charts.length > 0 && (
          <fieldset>
            <legend className="text-sm font-semibold">
              For this chart, and also for (the last changed first)
            </legend>
            <div className="flex max-h-56 flex-col gap-1 overflow-y-auto">
              {charts.map(({ id, name }) => (
                <Switch
                  key={id}
                  on={chosen.includes(id)}
                  onChange={(on) => setChosen((all) => (on ? [...all, id] : all.filter((c) => c !== id)))}
                >
                  {name}
                </Switch>
              ))}
            </div>
          </fieldset>
        )}
      </div>
      <div className="flex flex-col gap-3">
        <div className="flex flex-wrap items-center gap-3">
          <p role="status">{stateSaid(work, task.tunings.length)}</p>
          {work.is === 'working' && (
            <>
              <progress aria-label="Tunings tried" max={task.tunings.length} value={work.done} />
              <button type="button" className="button" onClick={cancel}>
                Cancel
              </button>
            </>
          )}
          {(work.is === 'calledOff' || work.is === 'failed') && (
            <button type="button" className="button" onClick={again}>
              Search again
            </button>
          )}
        </div>
        {fitted.length > 0 && (
          <ol aria-label="Tunings, the best first" className="flex list-decimal flex-col gap-2 pl-6">
            {fitted
              .filter((f) => f.why === null)
              .slice(0, LISTED)
              .map((f) => (
                <li key={f.tuning.join()}>
                  <button
                    type="button"
                    className="word font-semibold"
                    onClick={() =>
                      onParams({
                        ...params,
                        view: 'tuning',
                        move: { kind: 'tuning', keep: 'notes', to: toStringsTyped(f.tuning) },
                      })
                    }
                  >
                    {f.name}
                  </button>{' '}
                  <span className="text-sm text-soft">{pretty(tuningText(f.tuning))}</span>
                  <p className="text-sm">{whySaid(f)}.</p>
                </li>
              ))}
          </ol>
        )}
        {misfits > 0 && (
          <p className="text-sm text-soft">
            {plural(misfits, 'tuning')} left out, {misfits === 1 ? 'it has' : 'they have'} no room for the
            layout:{' '}
            {list(
              fitted
                .filter((f) => f.why !== null)
                .slice(0, 4)
                .map((f) => f.name),
            )}
            {misfits > 4 ? ' and more' : ''}.
          </p>
        )}
      </div>
    </div>
  );
}

/** The shape of the chart on the page. */
const shapeHere = ({ key, state }: Model): FitShape => ({ key, layout: state.layout });

import { FIRST_STATE } from '@crow-ladder/contract';
import { useEffect, useId, useState } from 'react';
import { useStore } from 'react-redux';
import { Link, Navigate, useParams, useSearchParams } from 'react-router';
import { server, type Trouble } from '../../app/api.ts';
import { stateFromQuery } from '../../app/stateUrl.ts';
import { opened, started } from '../../app/workbench.ts';
import { said, type State, useApp, useSend } from '../../app/store.ts';
import { Waiting } from '../../ui/Waiting.tsx';
import { Workbench } from './Workbench.tsx';

/** The first page: the chart worked on last, or a new one where there is none. */
export function HomePage() {
  const { data, error } = server.useChartsQuery();
  if (!data && !error) return <Waiting what="the charts" />;
  const last = data?.[0];
  return <Navigate replace to={last ? `/charts/${last.id}` : '/new'} />;
}

/** A chart that was never saved; its whole state is in the address. */
export function NewPage() {
  const send = useSend();
  const [query] = useSearchParams();
  const visit = useId();
  const ready = useApp((s) => s.workbench.visit === visit);
  useEffect(() => {
    if (ready) return;
    const read = stateFromQuery(query);
    if (read?.problem)
      send(said({ text: `The address could not be read: ${read.problem} Shown instead: the first chart.` }));
    send(started({ state: read?.state ?? FIRST_STATE, visit }));
  }, [ready, visit, query, send]);
  return ready ? <Workbench key="new" /> : <Waiting what="the chart" />;
}

/** A chart of the library, by its id; an unsaved state in the address goes before what was saved. */
export function ChartPage() {
  const { id = '' } = useParams();
  const send = useSend();
  const [query] = useSearchParams();
  const chartId = useApp((s) => s.workbench.chartId);
  const store = useStore<State>();
  const [failed, setFailed] = useState<Trouble | null>(null);
  const [read] = server.useLazyChartQuery();
  useEffect(() => {
    let wanted = true;
    read(id)
      .unwrap()
      .then((chart) => {
        if (!wanted) return;
        // Work on this very revision goes on, with its way back.
        const { workbench: at } = store.getState();
        if (at.chartId === id && at.revision === chart.revision) return;
        const carried = stateFromQuery(query, chart.state);
        if (carried?.problem)
          send(
            said({
              text: `The address could not be read: ${carried.problem} Shown instead: the chart as saved.`,
            }),
          );
        const state = carried && !carried.problem ? carried.state : null;
        setFailed(null);
        send(
          opened({
            chart,
            state: state && JSON.stringify(state) !== JSON.stringify(chart.state) ? state : null,
          }),
        );
      })
      .catch((error: Trouble) => wanted && setFailed(error));
    return () => {
      wanted = false;
    };
    // The address is read when the chart is opened, not while the workbench writes to it.
  }, [id]); // eslint-disable-line react-hooks/exhaustive-deps
  if (failed)
    return (
      <div className="py-10">
        <h1 className="mb-2 text-2xl font-semibold">This chart cannot be opened</h1>
        <p className="mb-4">{failed.message}</p>
        <Link to="/charts" className="button">
          All charts
        </Link>
      </div>
    );
  return chartId === id ? <Workbench key={id} /> : <Waiting what="the chart" />;
}

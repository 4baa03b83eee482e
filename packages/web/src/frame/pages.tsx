import { type ChartState, FIRST_STATE } from '@crow-ladder/contract';
import { nanoid } from '@reduxjs/toolkit';
import { type ReactNode, useEffect, useEffectEvent, useState } from 'react';
import { useStore } from 'react-redux';
import {
  Link,
  Navigate,
  useLocation,
  useNavigate,
  useNavigation,
  useParams,
  useSearchParams,
} from 'react-router';
import { LAST_CHANGED, server, type Trouble } from '../app/api.ts';
import { keptDrafts } from '../app/drafts.ts';
import { said } from '../app/notice.ts';
import { type State, type Store, useApp, useSend } from '../app/store.ts';
import { carriesState, stateToQuery } from '../model/addressWords.ts';
import { arrived, begunIn, entered, left, opened, sessionOf, started } from '../sessions/sessions.ts';
import { SessionProvider } from '../sessions/useSession.ts';
import { TASKS } from '../tasks.ts';
import { Waiting } from '../ui/Waiting.tsx';
import { ChartFrame } from './ChartFrame.tsx';
import { type TaskEntry } from './task.ts';

/** The first page: the chart worked on last, or a new one where there is none. */
export function HomePage() {
  const { data, error } = server.useChartsQuery(LAST_CHANGED);
  const locked = useApp((s) => s.standing.locked);
  if (locked || (!data && !error)) return <Waiting what="the charts" />;
  const last = data?.charts[0];
  return <Navigate replace to={last ? `/charts/${last.id}` : '/new'} />;
}

/** The state that an address carries, with the reason where it cannot be read; null where it carries none. */
async function carriedState(
  query: URLSearchParams,
  fallback: ChartState,
): Promise<{ readonly state: ChartState | null; readonly problem: string | null }> {
  if (!carriesState(query)) return { state: null, problem: null };
  const { stateFromQuery } = await import('../model/address.ts');
  const read = stateFromQuery(query, fallback);
  return read.ok ? { state: read.value, problem: null } : { state: null, problem: read.error.message };
}

interface SessionPageProps {
  readonly id: string;
  readonly base: string;
  readonly entry: TaskEntry;
  /** Shown while the session is not open. */
  readonly children: ReactNode;
}

/** The frame of a session as soon as it is open; the session knows that it is on the page. */
function SessionPage({ id, base, entry, children }: SessionPageProps) {
  const send = useSend();
  const open = useApp((s) => sessionOf(s, id) !== undefined);
  useEffect(() => {
    send(entered(id));
    return () => void send(left(id));
  }, [id, send]);
  if (!open) return children;
  return (
    <SessionProvider value={id}>
      <ChartFrame key={id} entry={entry} base={base} />
    </SessionProvider>
  );
}

/** The task that an address names; a name of before is led on, another one leads to the first task. */
function useTaskOf(base: string): TaskEntry | ReactNode {
  const { task } = useParams();
  const { search } = useLocation();
  const query = new URLSearchParams(search);
  const wanted = task ?? query.get('view');
  const entry = wanted === null ? TASKS[0]! : TASKS.find((t) => t.path === wanted);
  const send = useSend();
  const unknown = entry ? null : wanted;
  useEffect(() => {
    if (unknown !== null)
      send(said({ text: `A chart has no task “${unknown}”. Shown instead: ${TASKS[0]!.name}.` }));
  }, [unknown, send]);
  if (entry && task !== undefined) return entry;
  if (entry && !query.has('view')) return entry;
  query.delete('view');
  const rest = query.toString();
  return <Navigate replace to={`${base}/${(entry ?? TASKS[0]!).path}${rest && `?${rest}`}`} />;
}
const isEntry = (found: TaskEntry | ReactNode): found is TaskEntry =>
  typeof found === 'object' && found !== null && 'load' in found;

/** A chart that was never saved; its whole state is in the address. */
export function NewPage() {
  const send = useSend();
  const store = useStore<State>() as Store;
  const [query] = useSearchParams();
  const [id, setId] = useState<string | null>(null);
  const entry = useTaskOf('/new');
  const navigate = useNavigate();
  // The address is read when the page is opened, not while the frame writes to it.
  const address = useEffectEvent(() => query);
  useEffect(() => {
    let wanted = true;
    void carriedState(address(), FIRST_STATE).then(({ state, problem }) => {
      if (!wanted) return;
      if (problem)
        send(said({ text: `The address could not be read: ${problem} Shown instead: the first chart.` }));
      else if (!state && keptDrafts().length)
        send(said({ text: 'A chart that you began is not saved yet: its draft is on the page of charts.' }));
      // Coming back to the address of what was begun here goes on with it, and with its way back.
      const begun = begunIn(store.getState());
      if (state && begun && stateToQuery(begun.draft.state).toString() === stateToQuery(state).toString())
        return setId(begun.id);
      const made = nanoid();
      send(started({ id: made, state: state ?? FIRST_STATE }));
      setId(made);
    });
    return () => {
      wanted = false;
    };
  }, [send, store]);
  // Once the server has it, it has an address of its own; a player who is on the way to another page goes there.
  const isLeft = useNavigation().state !== 'idle';
  const isKept = useApp((s) => id !== null && (sessionOf(s, id)?.revision ?? 0) > 0);
  const path = isEntry(entry) ? entry.path : '';
  useEffect(() => {
    if (isKept && !isLeft) void navigate(`/charts/${id}/${path}`, { replace: true });
  }, [isKept, isLeft, id, path, navigate]);
  if (!isEntry(entry)) return entry;
  const waiting = <Waiting what="the chart" />;
  return id === null ? (
    waiting
  ) : (
    <SessionPage id={id} base="/new" entry={entry}>
      {waiting}
    </SessionPage>
  );
}

/** A chart of the library, by its id; an unsaved state in the address goes before what was saved. */
export function ChartPage() {
  const { id = '' } = useParams();
  const send = useSend();
  const store = useStore<State>() as Store;
  const [query] = useSearchParams();
  const [failed, setFailed] = useState<{ id: string; trouble: Trouble } | null>(null);
  const [read] = server.useLazyChartQuery();
  const open = useApp((s) => sessionOf(s, id) !== undefined);
  const entry = useTaskOf(`/charts/${id}`);
  const visit = useApp((s) => s.standing.cameIn);
  // The address is read when the chart is opened, not while the frame writes to it.
  const address = useEffectEvent(() => query);
  useEffect(() => {
    let wanted = true;
    const asked = address();
    const take = async (): Promise<void> => {
      const chart = await read(id).unwrap();
      // An open session goes on: what the server has is taken over only where nothing was changed here.
      if (sessionOf(store.getState(), id)) return void send(arrived(chart));
      const { state, problem } = await carriedState(asked, chart.state);
      if (!wanted) return;
      if (problem)
        send(said({ text: `The address could not be read: ${problem} Shown instead: the chart as saved.` }));
      const changed = state && JSON.stringify(state) !== JSON.stringify(chart.state);
      send(opened({ chart, state: changed ? state : null }));
    };
    take().catch((trouble: Trouble) => wanted && setFailed({ id, trouble }));
    return () => {
      wanted = false;
    };
  }, [id, visit, read, send, store]);
  if (!isEntry(entry)) return entry;
  if (failed?.id === id && !open)
    return (
      <div className="py-10">
        <h1 className="mb-2 text-2xl font-semibold">This chart cannot be opened</h1>
        <p className="mb-4">{failed.trouble.message}</p>
        <Link to="/charts" className="button">
          All charts
        </Link>
      </div>
    );
  return (
    <SessionPage key={id} id={id} base={`/charts/${id}`} entry={entry}>
      <Waiting what="the chart" />
    </SessionPage>
  );
}

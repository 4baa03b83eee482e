import { type ChartDraft, type ChartState, FIRST_STATE, refFrom } from '@crow-ladder/contract';
import { type ReactNode, useEffect, useEffectEvent, useState } from 'react';
import { useStore } from 'react-redux';
import { Link, Navigate, useLocation, useNavigate, useParams } from 'react-router';
import { LAST_CHANGED, server } from '../app/api.ts';
import { said } from '../app/notice.ts';
import { useRecall } from '../app/recalled.ts';
import { useApp } from '../app/state.ts';
import { type Trouble } from '../app/trouble.ts';
import { held } from '../sessions/held.ts';
import { begin, openChart, ready } from '../sessions/opening.ts';
import { changed, entered, left, sessionOf } from '../sessions/sessions.ts';
import { type Store, useAll, useSendAll } from '../sessions/state.ts';
import { SessionProvider } from '../sessions/useSession.ts';
import { type TaskEntry } from '../task/task.ts';
import { Waiting } from '../ui/Waiting.tsx';
import { ChartFrame } from './ChartFrame.tsx';
import { useTasks } from './tasks.ts';

/** The first page: what there is to do today, for one who has practised or learned something here; else the chart worked on last, or a new one where there is none. */
export function HomePage() {
  const { data, error } = server.useChartsQuery(LAST_CHANGED);
  const { data: recall, error: without } = useRecall();
  const locked = useApp((s) => s.standing.locked);
  if (recall?.own) return <Navigate replace to="/today" />;
  if (locked || (!data && !error) || (!recall && !without)) return <Waiting what="the charts" />;
  const last = data?.charts[0];
  return <Navigate replace to={last ? `/charts/${last.id}` : '/new'} />;
}

/** The task that an address names; a name of before is led on, another one leads to the first task. */
function useTaskOf(base: string): TaskEntry | ReactNode {
  const { task } = useParams();
  const { search } = useLocation();
  const query = new URLSearchParams(search);
  const tasks = useTasks();
  const asked = task ?? query.get('view');
  // Notes were a task once; they open from the name of the chart.
  const wanted = asked === 'notes' ? tasks[0]!.path : asked;
  const entry = wanted === null ? tasks[0]! : tasks.find((t) => t.path === wanted);
  const send = useSendAll();
  const unknown = entry ? null : wanted;
  useEffect(() => {
    if (unknown !== null)
      send(said({ text: `A chart has no task “${unknown}”. Shown instead: ${tasks[0]!.name}.` }));
  }, [unknown, send, tasks]);
  if (entry && task === entry.path) return entry;
  if (entry && task === undefined && !query.has('view')) return entry;
  query.delete('view');
  const rest = query.toString();
  return <Navigate replace to={`${base}/${(entry ?? tasks[0]!).path}${rest && `?${rest}`}`} />;
}
const isEntry = (found: TaskEntry | ReactNode): found is TaskEntry =>
  typeof found === 'object' && found !== null && 'load' in found;

/** What in an address is a chart's own, beside how it is looked at. */
const OWN = [
  ...['root', 'scale', 'at', 'layout', 'strings', 'neck', 'called', 'instrument', 'run', 'over', 'other'],
  ...['tag', 'notes'],
];
const carriesChart = (query: URLSearchParams): boolean => OWN.some((name) => query.has(name));
const FIRST: ChartDraft = { name: '', tags: [], notes: '', state: FIRST_STATE };

/** The chart that an address carries, with the reason where it cannot be read; null where it carries none. */
async function carriedDraft(
  query: URLSearchParams,
  fallback: ChartDraft,
): Promise<{ readonly draft: ChartDraft | null; readonly problem: string | null }> {
  if (!carriesChart(query) && !query.has('front')) return { draft: null, problem: null };
  const { draftFromQuery } = await import('../model/address.ts');
  const read = draftFromQuery(query, fallback);
  return read.ok ? { draft: read.value, problem: null } : { draft: null, problem: read.error.message };
}

/** How an address looks at a chart; undefined where it does not say it. */
function frontIn(query: URLSearchParams): ChartState['front'] | undefined {
  const word = query.get('front');
  if (word === null) return undefined;
  const ref = refFrom(word) as NonNullable<ChartState['front']>;
  return [ref.start, ref.low, ref.nth].every(Number.isInteger) ? ref : undefined;
}

/**
 * An open chart under its own address, or a new one under the state that it begins with, until it is touched: then it has an address
 * of its own. Nothing that an address says is written to a chart that is saved: a state in its address opens as a new chart.
 */
export function ChartPage() {
  const { id: named, task } = useParams();
  const [begun, setBegun] = useState<string | null>(null);
  const [failed, setFailed] = useState<{ readonly id: string; readonly trouble: Trouble } | null>(null);
  // From here on it is known by its address.
  if (named !== undefined && begun !== null) setBegun(null);
  const id = named ?? begun;
  const { search, pathname } = useLocation();
  const navigate = useNavigate();
  // The way there is another function at each address.
  const lead = useEffectEvent((to: string) => void navigate(to, { replace: true }));
  const send = useSendAll();
  const store = useStore() as unknown as Store;
  const open = useAll((s) => id !== null && sessionOf(s, id) !== undefined);
  const visit = useAll((s) => s.standing.cameIn);
  const library = useAll((s) => s.standing.library);
  const base = named === undefined ? '/new' : `/charts/${named}`;
  const entry = useTaskOf(base);
  // The address is read when a page is opened, not while the frame writes to it.
  const address = useEffectEvent(() => new URLSearchParams(search));
  const pathOf = useEffectEvent(() => (isEntry(entry) ? entry.path : (task ?? '')));

  useEffect(() => {
    if (named !== undefined) return;
    let wanted = true;
    const query = address();
    void Promise.all([carriedDraft(query, FIRST), send(ready())]).then(([{ draft, problem }]) => {
      if (!wanted) return;
      if (problem)
        send(said({ text: `The address could not be read: ${problem} Shown instead: the first chart.` }));
      setBegun(send(begin(draft ?? FIRST, { of: query.get('of') })));
    });
    return () => {
      wanted = false;
    };
  }, [named, send]);

  useEffect(() => {
    if (named === undefined) return;
    let wanted = true;
    const query = address();
    const take = async (): Promise<void> => {
      const isNew = sessionOf(store.getState(), named) === undefined;
      const trouble = await send(openChart(named, isNew ? { front: frontIn(query) } : {}));
      if (!wanted) return;
      if (trouble) return setFailed({ id: named, trouble });
      if (!carriesChart(query)) return;
      const saved = sessionOf(store.getState(), named)?.draft;
      if (!saved) return;
      const { draft, problem } = await carriedDraft(query, saved);
      if (problem)
        send(said({ text: `The address could not be read: ${problem} Shown instead: the chart as saved.` }));
      if (!draft) return;
      if (held(draft) === held({ ...saved, name: '' })) {
        // A chart that is open already comes to be looked at as the address says.
        const front = frontIn(query);
        if (!isNew && front) send(changed({ id: named, part: { state: { ...saved.state, front } } }));
        return;
      }
      const { draftToQuery } = await import('../model/addressWords.ts');
      const beside = draftToQuery(draft);
      beside.set('of', named);
      // How it is looked at, and what its task is set to, go with it.
      for (const [name, word] of query)
        if (!OWN.includes(name) && !beside.has(name)) beside.append(name, word);
      if (wanted) lead(`/new/${pathOf()}?${beside}`);
    };
    void take();
    return () => {
      wanted = false;
    };
  }, [named, visit, library, send, store]);

  // Once it is touched a new chart has an address of its own; a player who is on the way to another page goes there.
  const isTouched = useAll(
    (s) => named === undefined && id !== null && s.standing.keeps && sessionOf(s, id)?.touched === true,
  );
  const isSaved = useAll((s) => named === undefined && id !== null && (sessionOf(s, id)?.revision ?? 0) > 0);
  useEffect(() => {
    if ((!isTouched && !isSaved) || window.location.pathname !== pathname) return;
    const query = new URLSearchParams(window.location.search);
    for (const name of [...OWN, 'of']) query.delete(name);
    const rest = query.toString();
    lead(`/charts/${id}/${pathOf()}${rest && `?${rest}`}`);
  }, [isTouched, isSaved, pathname, id]);

  useEffect(() => {
    if (id === null) return;
    send(entered(id));
    return () => void send(left(id));
  }, [id, send]);

  if (!isEntry(entry)) return entry;
  if (named !== undefined && failed?.id === named && !open)
    return (
      <div className="py-10">
        <h1 className="mb-2 text-2xl font-semibold">This chart cannot be opened</h1>
        <p className="mb-4">{failed.trouble.message}</p>
        {carriesChart(new URLSearchParams(search)) && (
          <Link to={`/new/${entry.path}${search}`} className="button button-strong mr-3">
            Open it as a new chart
          </Link>
        )}
        <Link to="/charts" className="button">
          All charts
        </Link>
      </div>
    );
  if (id === null || !open) return <Waiting what="the chart" />;
  return (
    <SessionProvider value={id}>
      <ChartFrame key={id} entry={entry} base={base} />
    </SessionProvider>
  );
}

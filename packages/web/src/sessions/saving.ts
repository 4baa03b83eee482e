import { type Chart, CHART_LIMITS, type ChartDraft, cutText } from '@crow-ladder/contract';
import {
  createListenerMiddleware,
  isAnyOf,
  nanoid,
  type ThunkAction,
  type ThunkDispatch,
  type UnknownAction,
} from '@reduxjs/toolkit';
import { server, type Trouble, UNREACHABLE } from '../app/api.ts';
import { said } from '../app/notice.ts';
import { cameIn } from '../app/standing.ts';
import { rest } from '../ports/clock.ts';
import { type Outside } from '../ports/outside.ts';
import { onLeaving } from '../ui/later.ts';
import {
  allSessions,
  arrived,
  changed,
  dropped,
  keptMine,
  left,
  NEW,
  opened,
  redone,
  saved,
  saveFailed,
  saving,
  sessionOf,
  type WithSessions,
  undone,
} from './sessions.ts';

/** A save as it was sent: under its key it is made once, however often it is asked for. */
interface Attempt {
  readonly key: string;
  /** The draft of the session, and what was sent of it. */
  readonly sent: ChartDraft;
  readonly body: ChartDraft;
  readonly revision: number;
}

/** What is known of saves beside the sessions, by session. */
export interface Saves {
  /** On their way: they follow one another, so that a tab is never in conflict with itself. */
  readonly onTheirWay: Map<string, Promise<unknown>>;
  /** Those whose answer was lost: they may have been made or not, and are asked for again before any other. */
  readonly lost: Map<string, Attempt>;
}
/** What saving works with: the world outside, and what it knows of saves by itself. */
export type SavingOutside = Pick<Outside, 'charts' | 'clock'> & { readonly saves: Saves };
type Work<T> = ThunkAction<T, WithSessions, SavingOutside, UnknownAction>;
type Send = ThunkDispatch<WithSessions, SavingOutside, UnknownAction>;

const QUIET_MS = 700;
/** What may be otherwise a moment later: a save that failed by it is made as soon as it can be. */
const FOR_NOW = new Set([
  UNREACHABLE,
  'stopping',
  'busy',
  'disk-full',
  'not-writable',
  'library-gone',
  'locked',
]);
/** How long to wait before asking whether the server is back, and before a save that it refused is tried again, in ms. */
const AGAIN_MS = { away: 3000, refused: 15_000 };

/** What a player's own version is called beside the one that stands on the server. */
export const nameOfMine = (name: string): string => `${cutText(name, CHART_LIMITS.name - 7)} (mine)`;

interface SaveOptions {
  /** For a chart that has none yet. */
  readonly name?: string;
  /** The page may be gone before the answer comes. */
  readonly leaving?: boolean;
}

/** Saves a session. Resolves to the chart's id, or null where it could not be saved. */
export const saveSession =
  (id: string, { name, leaving = false }: SaveOptions = {}): Work<Promise<string | null>> =>
  async (send, getState, { charts, saves: { onTheirWay, lost } }) => {
    // One save after the other: the next one is made from the revision that the last one gave. Who leaves cannot wait,
    // and counts on that revision.
    while (onTheirWay.has(id) && !leaving) await onTheirWay.get(id)!.catch(() => null);
    const session = sessionOf(getState(), id);
    if (!session || session.save === 'conflict') return null;
    if (id !== NEW && session.save === 'saved') return id;
    const revision = session.revision + (onTheirWay.has(id) ? 1 : 0);
    const body = name === undefined ? session.draft : { ...session.draft, name };
    const attempt = lost.get(id) ?? { key: nanoid(), sent: session.draft, body, revision };
    const { key, sent } = attempt;
    send(saving(id));
    const port = charts(send);
    const request =
      id === NEW
        ? port.create(attempt.body, { key })
        : port.change(id, { ...attempt.body, revision: attempt.revision }, { key, leaving });
    onTheirWay.set(id, request);
    try {
      const chart = await request;
      lost.delete(id);
      send(saved({ id, chart, sent }));
      return chart.id;
    } catch (error) {
      const trouble = error as Trouble;
      if (trouble.code === UNREACHABLE) lost.set(id, attempt);
      else lost.delete(id);
      send(saveFailed({ id, trouble }));
      return null;
    } finally {
      if (onTheirWay.get(id) === request) onTheirWay.delete(id);
    }
  };

/** Makes a chart of its own from a session's work. Resolves to it, or null after telling why not. */
export const keepAsChart =
  (draft: ChartDraft, name: string): Work<Promise<Chart | null>> =>
  async (send, _, { charts }) => {
    try {
      return await charts(send).create({ ...draft, name });
    } catch (error) {
      send(said({ text: (error as Trouble).message }));
      return null;
    }
  };

/** Work that could not be saved and is not on the page: kept as a chart of its own where that helps, and told in any case. */
const rescue =
  (id: string): Work<Promise<void>> =>
  async (send, getState) => {
    const session = sessionOf(getState(), id);
    if (!session?.trouble || id === NEW) return;
    const { draft, trouble } = session;
    const helps = trouble.code === 'conflict' || trouble.code === 'not-found';
    const copy = helps ? await send(keepAsChart(draft, nameOfMine(draft.name))) : null;
    if (copy) send(dropped([id]));
    const kept = copy ? ` What you changed is kept as “${copy.name}”.` : '';
    send(said({ text: `“${draft.name}” could not be saved: ${trouble.message}${kept}` }));
  };

/** The save machine: saves what waits a moment after the last change, on whatever page the player is by then. */
export function savingMiddleware(outside: SavingOutside) {
  const { clock } = outside;
  const listener = createListenerMiddleware<WithSessions, Send>();
  const tickets = new Map<string, number>();
  const moved = isAnyOf(changed, undone, redone, keptMine, opened, saved);
  listener.startListening({
    predicate: moved,
    effect: async (action, api) => {
      if (!moved(action)) return;
      const { payload } = action;
      const id = typeof payload === 'string' ? payload : 'chart' in payload ? payload.chart.id : payload.id;
      const ticket = (tickets.get(id) ?? 0) + 1;
      tickets.set(id, ticket);
      if (sessionOf(api.getState(), id)?.save !== 'pending') return;
      await rest(clock, QUIET_MS);
      if (tickets.get(id) === ticket && sessionOf(api.getState(), id)?.save === 'pending')
        await api.dispatch(saveSession(id));
    },
  });
  // What fails for now is saved when it can be, without a click; of several failures of one session the last one waits.
  const waiting = new Map<string, number>();
  listener.startListening({
    actionCreator: saveFailed,
    effect: async ({ payload: { id, trouble } }, api) => {
      if (id === NEW || !FOR_NOW.has(trouble.code)) return;
      const ticket = (waiting.get(id) ?? 0) + 1;
      waiting.set(id, ticket);
      const waits = (): boolean =>
        waiting.get(id) === ticket && sessionOf(api.getState(), id)?.save === 'failed';
      const port = outside.charts(api.dispatch);
      do await rest(clock, trouble.code === UNREACHABLE ? AGAIN_MS.away : AGAIN_MS.refused);
      while (waits() && !(await port.isThere()));
      if (waits()) await api.dispatch(saveSession(id));
    },
  });
  listener.startListening({
    actionCreator: cameIn,
    effect: async (_, api) => {
      for (const { id, save, trouble } of allSessions(api.getState()))
        if (save === 'failed' && trouble?.code === 'locked' && id !== NEW)
          await api.dispatch(saveSession(id));
    },
  });
  // What fails where nobody sees it is told, and kept where it can be.
  listener.startListening({
    actionCreator: saveFailed,
    effect: async ({ payload: { id } }, api) => {
      if (api.getState().sessions.front !== id) await api.dispatch(rescue(id));
    },
  });
  listener.startListening({
    actionCreator: left,
    effect: async ({ payload: id }, api) => {
      await api.dispatch(rescue(id));
    },
  });
  // A chart that was changed from elsewhere on this page, as when the list renames it.
  listener.startListening({
    matcher: server.endpoints.changeChart.matchFulfilled,
    effect: ({ payload }, api) => {
      api.dispatch(arrived(payload));
    },
  });
  // A chart that was deleted, and all of them once a backup came back, are read anew when they are opened again.
  listener.startListening({
    matcher: server.endpoints.remove.matchFulfilled,
    effect: ({ meta }, api) => {
      api.dispatch(dropped([meta.arg.originalArgs.id]));
    },
  });
  listener.startListening({
    matcher: server.endpoints.replaceLibrary.matchFulfilled,
    effect: (_, api) => {
      api.dispatch(dropped(allSessions(api.getState()).flatMap((s) => (s.save === 'saved' ? [s.id] : []))));
    },
  });
  return listener.middleware;
}

/** What was changed a moment before the page goes is saved on the way out; where work could be lost, the player is asked. */
export function guardLeaving(store: {
  readonly dispatch: Send;
  readonly getState: () => WithSessions;
}): () => void {
  const stay = onLeaving(() => {
    for (const { id, save } of allSessions(store.getState()))
      if (save === 'pending') void store.dispatch(saveSession(id, { leaving: true }));
  }, 'last');
  const ask = (e: BeforeUnloadEvent): void => {
    if (allSessions(store.getState()).some((s) => s.save === 'failed' || s.save === 'conflict'))
      e.preventDefault();
  };
  window.addEventListener('beforeunload', ask);
  return () => {
    stay();
    window.removeEventListener('beforeunload', ask);
  };
}

import { CHART_LIMITS, type ChartDraft, cutText } from '@crow-ladder/contract';
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
import { type Sending } from '../ports/chartPort.ts';
import { rest } from '../ports/clock.ts';
import { type Outside } from '../ports/outside.ts';
import { onLeaving } from '../ui/later.ts';
import {
  allSessions,
  arrived,
  branched,
  changed,
  dropped,
  isUnnamed,
  keptMine,
  left,
  named,
  opened,
  redone,
  saved,
  saveFailed,
  saving,
  sessionOf,
  type WithSessions,
  undone,
} from './sessions.ts';

/** What is known of saves beside the sessions, by session. */
export interface Saves {
  /** On their way: they follow one another, so that a tab is never in conflict with itself. */
  readonly onTheirWay: Map<string, Promise<unknown>>;
  /** What was sent since the last answer, where answers were lost: one of it may have been saved. */
  readonly lost: Map<string, readonly ChartDraft[]>;
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

/** What a draft holds, in one text. */
const held = ({ name, tags, notes, state }: ChartDraft): string =>
  JSON.stringify([name, tags, notes, state], (_, part: unknown) =>
    part !== null && typeof part === 'object' && !Array.isArray(part)
      ? Object.fromEntries(Object.entries(part).sort(([a], [b]) => (a < b ? -1 : 1)))
      : part,
  );

/**
 * Saves a session that has its name; `leaving`: the page may be gone before the answer comes. Resolves to whether it is saved. The
 * newest work goes out, whatever became of what was sent before it; where that was saved after all, the newest goes on from it.
 */
export const saveSession =
  (id: string, { leaving = false }: Sending = {}): Work<Promise<boolean>> =>
  async (send, getState, { charts, saves: { onTheirWay, lost } }) => {
    // One save after the other: the next one is made from the revision that the last one gave. Who leaves cannot wait,
    // and counts on that revision.
    while (onTheirWay.has(id) && !leaving) await onTheirWay.get(id)!.catch(() => null);
    const session = sessionOf(getState(), id);
    if (!session || isUnnamed(session) || session.save === 'conflict') return false;
    if (session.save === 'saved') return true;
    const revision = session.revision + (onTheirWay.has(id) ? 1 : 0);
    const { draft: sent } = session;
    const before = lost.get(id) ?? [];
    send(saving(id));
    const request = charts(send).put(id, { ...sent, revision }, { leaving });
    onTheirWay.set(id, request);
    try {
      const chart = await request;
      lost.delete(id);
      send(saved({ id, chart, sent }));
      return true;
    } catch (error) {
      const trouble = error as Trouble;
      const is = trouble.current;
      lost.delete(id);
      if (trouble.code === UNREACHABLE) lost.set(id, [...before, sent]);
      const made = is?.revision === revision + 1 && before.find((draft) => held(draft) === held(is));
      if (made) send(saved({ id, chart: is, sent: made }));
      else send(saveFailed({ id, trouble }));
      return false;
    } finally {
      if (onTheirWay.get(id) === request) onTheirWay.delete(id);
    }
  };

/** Keeps work as a chart of its own, which is saved as any other. Gives its id. */
export const keepAsChart =
  (draft: ChartDraft): Work<string> =>
  (send) => {
    const id = nanoid();
    send(branched({ id, draft }));
    return id;
  };

/** Work that could not be saved and is not on the page: kept as a chart of its own where that helps, and told in any case. */
const rescue =
  (id: string): Work<void> =>
  (send, getState) => {
    const session = sessionOf(getState(), id);
    if (!session?.trouble) return;
    const { draft, trouble } = session;
    const mine = nameOfMine(draft.name);
    const helps = trouble.code === 'conflict' || trouble.code === 'not-found';
    if (helps) {
      send(keepAsChart({ ...draft, name: mine }));
      send(dropped([id]));
    }
    const kept = helps ? ` What you changed is kept as “${mine}”.` : '';
    send(said({ text: `“${draft.name}” could not be saved: ${trouble.message}${kept}` }));
  };

/** The save machine: saves what waits a moment after the last change, on whatever page the player is by then. */
export function savingMiddleware(outside: SavingOutside) {
  const { clock } = outside;
  const listener = createListenerMiddleware<WithSessions, Send>();
  const tickets = new Map<string, number>();
  const moved = isAnyOf(changed, undone, redone, named, branched, keptMine, opened, saved);
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
      if (!FOR_NOW.has(trouble.code)) return;
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
        if (save === 'failed' && trouble?.code === 'locked') await api.dispatch(saveSession(id));
    },
  });
  // What fails where nobody sees it is told, and kept where it can be.
  listener.startListening({
    actionCreator: saveFailed,
    effect: ({ payload: { id } }, api) => {
      if (api.getState().sessions.front !== id) api.dispatch(rescue(id));
    },
  });
  listener.startListening({
    actionCreator: left,
    effect: ({ payload: id }, api) => {
      api.dispatch(rescue(id));
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

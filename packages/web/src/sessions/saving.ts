import { CHART_LIMITS, type ChartDraft, cutText } from '@crow-ladder/contract';
import {
  createListenerMiddleware,
  isAnyOf,
  nanoid,
  type ThunkAction,
  type ThunkDispatch,
  type UnknownAction,
} from '@reduxjs/toolkit';
import { server, type WithServer } from '../app/api.ts';
import { said } from '../app/notice.ts';
import { post, type WithOutbox } from '../app/outbox.ts';
import { cameIn, type WithStanding } from '../app/standing.ts';
import { againAfter, isForNow, type Trouble } from '../app/trouble.ts';
import { type Sending } from '../ports/chartPort.ts';
import { rest } from '../ports/clock.ts';
import { type Outside } from '../ports/outside.ts';
import { onLeaving } from '../ui/later.ts';
import { held } from './held.ts';
import {
  allSessions,
  arrived,
  branched,
  changed,
  dropped,
  isFollowing,
  isHeldUp,
  isUnnamed,
  keptMine,
  named,
  redone,
  resumed,
  saved,
  saveFailed,
  saving,
  sessionOf,
  typed,
  type WithSessions,
  undone,
} from './sessions.ts';

/**
 * What saving works with: the world outside, and by session what is on its way: saves follow one another, so that a tab is never in
 * conflict with itself, and a chart is opened once.
 */
export type SavingOutside = Outside & {
  readonly onTheirWay: Map<string, Promise<unknown>>;
  readonly opening: Map<string, Promise<Trouble | null>>;
};
type Work<T> = ThunkAction<T, WithSessions, SavingOutside, UnknownAction>;
type State = WithSessions & WithStanding & WithOutbox & WithServer;
type Send = ThunkDispatch<State, SavingOutside, UnknownAction>;

const QUIET_MS = 700;
/** What a player's own version is called beside the one that stands on the server. */
export const nameOfMine = (name: string): string => `${cutText(name, CHART_LIMITS.name - 7)} (mine)`;

/**
 * Saves a session that has its name; `leaving`: the page may be gone before the answer comes. Resolves to whether it is saved. The
 * newest work goes out, whatever became of what was sent before it; where that was saved after all, the newest goes on from it.
 */
export const saveSession =
  (id: string, { leaving = false }: Sending = {}): Work<Promise<boolean>> =>
  async (send, getState, { charts, onTheirWay, channel }) => {
    // One save after the other: the next one is made from the revision that the last one gave. Who leaves cannot wait,
    // and counts on that revision.
    while (onTheirWay.has(id) && !leaving) await onTheirWay.get(id)!.catch(() => null);
    const session = sessionOf(getState(), id);
    if (!session || isUnnamed(session) || session.save === 'conflict' || session.save === 'apart')
      return false;
    if (session.save === 'saved') return true;
    const revision = session.revision + (onTheirWay.has(id) ? 1 : 0);
    const { draft, sent: before } = session;
    send(saving({ id, held: held(draft) }));
    const request = charts(send).put(id, { ...draft, revision }, { leaving });
    onTheirWay.set(id, request);
    try {
      const chart = await request;
      send(saved({ id, chart, whole: sessionOf(getState(), id)?.draft === draft }));
      channel.tell({ is: 'saved', id });
      return true;
    } catch (error) {
      const trouble = error as Trouble;
      const is = trouble.current;
      const stands = is?.revision === revision + 1 ? held(is) : null;
      const whole = stands !== null && stands === held(sessionOf(getState(), id)?.draft ?? draft);
      if (is && stands !== null && before.includes(stands)) send(saved({ id, chart: is, whole }));
      else send(saveFailed({ id, trouble }));
      return whole;
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

/** Reads a chart anew: what stands there now is taken over only where nothing was changed here. */
export const catchUp =
  (id: string): Work<Promise<void>> =>
  async (send, _, { charts }) => {
    const chart = await charts(send)
      .get(id)
      .catch(() => null);
    if (chart) send(arrived(chart));
  };

/** The session that an action is about. */
const idOf = ({ payload }: { readonly payload: string | { readonly id: string } }): string =>
  typeof payload === 'string' ? payload : payload.id;

/** The save machine: saves what waits a moment after the last change, on whatever page the player is by then. */
export function savingMiddleware(outside: SavingOutside) {
  const { clock } = outside;
  const listener = createListenerMiddleware<State, Send>();
  const tickets = new Map<string, number>();
  const moved = isAnyOf(changed, undone, redone, named, branched, keptMine, resumed, saved);
  listener.startListening({
    predicate: moved,
    effect: async (action, api) => {
      if (!moved(action)) return;
      const id = idOf(action);
      const ticket = (tickets.get(id) ?? 0) + 1;
      tickets.set(id, ticket);
      if (sessionOf(api.getState(), id)?.save !== 'pending') return;
      await rest(clock, QUIET_MS);
      if (tickets.get(id) === ticket && sessionOf(api.getState(), id)?.save === 'pending')
        await api.dispatch(saveSession(id));
    },
  });
  // Where a chart is merely looked at otherwise, that is kept with it without a revision.
  const looked = isAnyOf(changed, undone, redone);
  listener.startListening({
    predicate: looked,
    effect: (action, api) => {
      if (!looked(action)) return;
      const id = idOf(action);
      const session = sessionOf(api.getState(), id);
      if (session?.save !== 'saved' || session.revision === 0) return;
      const look = { front: session.draft.state.front };
      void api.dispatch(post({ kind: 'look', id, look }, `look:${id}`));
    },
  });
  // What fails for now is saved when it can be, without a click; of several failures of one session the last one waits.
  const waiting = new Map<string, number>();
  /** How often each failed in a row. */
  const times = new Map<string, number>();
  listener.startListening({
    actionCreator: saveFailed,
    effect: async ({ payload: { id, trouble } }, api) => {
      if (!isForNow(trouble)) return;
      const ticket = (waiting.get(id) ?? 0) + 1;
      waiting.set(id, ticket);
      const waits = (): boolean =>
        waiting.get(id) === ticket && sessionOf(api.getState(), id)?.save === 'failed';
      const port = outside.charts(api.dispatch);
      let nth = times.get(id) ?? 0;
      do await rest(clock, againAfter(trouble, nth++));
      while (waits() && !(await port.isThere()));
      times.set(id, nth);
      if (waits()) await api.dispatch(saveSession(id));
    },
  });
  listener.startListening({
    actionCreator: saved,
    effect: ({ payload: { id } }) => void times.delete(id),
  });
  listener.startListening({
    actionCreator: cameIn,
    effect: async (_, api) => {
      for (const { id, save, trouble } of allSessions(api.getState()))
        if (save === 'failed' && trouble?.code === 'locked') await api.dispatch(saveSession(id));
    },
  });
  // What fails where nobody sees it is told; it stays as it is until the player decides.
  listener.startListening({
    actionCreator: saveFailed,
    effect: ({ payload: { id, trouble } }, api) => {
      const { sessions } = api.getState();
      const session = sessions.entities[id];
      if (sessions.front !== id && session && !isForNow(trouble))
        api.dispatch(
          said({
            text: `“${session.draft.name}” is not saved: ${trouble.message} What you changed is kept: open the chart to decide.`,
          }),
        );
    },
  });
  // What was made elsewhere while a text was typed is followed once it is typed no more, and nothing came of it.
  listener.startListening({
    actionCreator: typed,
    effect: async ({ payload: { id, typing } }, api) => {
      const session = sessionOf(api.getState(), id);
      if (typing || !session?.touched || session.revision === 0 || !isFollowing(session)) return;
      await api.dispatch(catchUp(id));
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

/**
 * Where this browser keeps nothing, what was changed a moment before the page goes is saved on the way out, and the player is asked
 * where work could be lost. Else nothing is sent, and nothing asked: the journal has it.
 */
export function guardLeaving(store: {
  readonly dispatch: Send;
  readonly getState: () => WithSessions & WithStanding;
}): () => void {
  const atRisk = () => (store.getState().standing.keeps ? [] : allSessions(store.getState()));
  const stay = onLeaving(() => {
    for (const { id, save } of atRisk())
      if (save === 'pending') void store.dispatch(saveSession(id, { leaving: true }));
  }, 'last');
  const ask = (e: BeforeUnloadEvent): void => {
    if (atRisk().some(isHeldUp)) e.preventDefault();
  };
  window.addEventListener('beforeunload', ask);
  return () => {
    stay();
    window.removeEventListener('beforeunload', ask);
  };
}

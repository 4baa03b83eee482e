import { type Settings } from '@crow-ladder/contract';
import { configureStore, createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { type Keeping } from '../ports/keeping.ts';
import { type Outside } from '../ports/outside.ts';
import { savingMiddleware, type SavingOutside } from '../sessions/saving.ts';
import { sessions } from '../sessions/sessions.ts';
import { server } from './api.ts';
import { keepDrafts } from './drafts.ts';
import { deleted, notice, status } from './notice.ts';
import { standing } from './standing.ts';

/** What the neck shows; it belongs to the player at the screen, not to the chart. */
export interface View {
  readonly rootsOnly: boolean;
  /** Lowest and highest fret shown; null is the whole neck, or on a narrow screen the position unless `whole` is asked for. */
  readonly zoom: readonly [number, number] | null;
  readonly whole: boolean;
  readonly labels: Settings['labels'] | null;
  readonly recent: readonly string[];
}

const RECENT = 6;
/** Where the browser keeps the scales used last. */
const RECENT_AT = 'crow-ladder.recent';
function recentKept(keeping: Keeping): readonly string[] {
  try {
    const kept: unknown = JSON.parse(keeping.getItem(RECENT_AT) ?? '[]');
    return Array.isArray(kept) ? kept.filter((id) => typeof id === 'string').slice(0, RECENT) : [];
  } catch {
    return [];
  }
}

export const view = createSlice({
  name: 'view',
  initialState: { rootsOnly: false, zoom: null, whole: false, labels: null, recent: [] } as View,
  reducers: {
    looked: (at, { payload }: PayloadAction<Partial<View>>): View => ({ ...at, ...payload }),
    usedScale: (at, { payload }: PayloadAction<string>): View => ({
      ...at,
      recent: [payload, ...at.recent.filter((s) => s !== payload)].slice(0, RECENT),
    }),
  },
});
export const { looked, usedScale } = view.actions;

export function makeStore(outside: Outside) {
  const { keeping } = outside;
  const extra: Outside & SavingOutside = { ...outside, saves: { onTheirWay: new Map(), lost: new Map() } };
  const store = configureStore({
    preloadedState: { view: { ...view.getInitialState(), recent: recentKept(keeping) } },
    reducer: {
      sessions: sessions.reducer,
      view: view.reducer,
      notice: notice.reducer,
      deleted: deleted.reducer,
      status: status.reducer,
      standing: standing.reducer,
      server: server.reducer,
    },
    middleware: (base) =>
      base({ immutableCheck: false, serializableCheck: false, thunk: { extraArgument: extra } })
        .prepend(savingMiddleware(extra))
        .concat(server.middleware),
  });
  keepDrafts(store, outside);
  let recent = store.getState().view.recent;
  store.subscribe(() => {
    const now = store.getState().view.recent;
    if (now === recent) return;
    recent = now;
    try {
      keeping.setItem(RECENT_AT, JSON.stringify(now));
    } catch {
      // A browser that keeps nothing forgets the recent scales with the page.
    }
  });
  return store;
}

export type Store = ReturnType<typeof makeStore>;
export type State = ReturnType<Store['getState']>;
export const useApp = useSelector.withTypes<State>();
export const useSend = useDispatch.withTypes<Store['dispatch']>();

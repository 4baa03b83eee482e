import { type Settings } from '@crow-ladder/contract';
import {
  createSlice,
  type PayloadAction,
  type ThunkAction,
  type ThunkDispatch,
  type UnknownAction,
} from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { type Keeping } from '../ports/keeping.ts';
import { type Outside } from '../ports/outside.ts';
import { type WithServer } from './api.ts';
import { type deleted, type notice, type status } from './notice.ts';
import { type WithOutbox } from './outbox.ts';
import { type WithStanding } from './standing.ts';

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
export function recentKept(keeping: Keeping): readonly string[] {
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

/** Has the browser keep the scales used last. */
export function keepRecent(
  store: {
    readonly getState: () => { readonly view: View };
    readonly subscribe: (listener: () => void) => unknown;
  },
  keeping: Keeping,
): void {
  let { recent } = store.getState().view;
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
}

/** What the page knows beside its open charts. */
export interface AppState extends WithStanding, WithOutbox, WithServer {
  readonly view: View;
  readonly notice: ReturnType<typeof notice.reducer>;
  readonly deleted: ReturnType<typeof deleted.reducer>;
  readonly status: ReturnType<typeof status.reducer>;
}
export type AppSend = ThunkDispatch<AppState, Outside, UnknownAction>;
/** Work on what the page knows, by what it was given of the world outside. */
export type AppWork<T> = ThunkAction<T, AppState, Outside, UnknownAction>;
export const useApp = useSelector.withTypes<AppState>();
export const useSend = useDispatch.withTypes<AppSend>();

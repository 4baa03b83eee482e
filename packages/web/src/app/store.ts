import { type Settings } from '@crow-ladder/contract';
import { configureStore, createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { useDispatch, useSelector } from 'react-redux';
import { server } from './api.ts';
import { workbench } from './workbench.ts';

/** What the neck shows; it belongs to the player at the screen, not to the chart. */
export interface View {
  readonly rootsOnly: boolean;
  /** Lowest and highest fret shown; null is the whole neck. */
  readonly zoom: readonly [number, number] | null;
  readonly labels: Settings['labels'] | null;
  readonly recent: readonly string[];
}

const RECENT = 6;
export const view = createSlice({
  name: 'view',
  initialState: { rootsOnly: false, zoom: null, labels: null, recent: [] } as View,
  reducers: {
    looked: (at, { payload }: PayloadAction<Partial<View>>): View => ({ ...at, ...payload }),
    usedScale: (at, { payload }: PayloadAction<string>): View => ({
      ...at,
      recent: [payload, ...at.recent.filter((s) => s !== payload)].slice(0, RECENT),
    }),
  },
});
export const { looked, usedScale } = view.actions;

export interface Notice {
  readonly text: string;
  /** What the notice can take back, by name. */
  readonly undo?: { readonly kind: 'chart' | 'instrument'; readonly id: string };
}
const notice = createSlice({
  name: 'notice',
  initialState: null as Notice | null,
  reducers: { said: (_, { payload }: PayloadAction<Notice | null>) => payload },
});
export const { said } = notice.actions;

export const makeStore = () =>
  configureStore({
    reducer: {
      workbench: workbench.reducer,
      view: view.reducer,
      notice: notice.reducer,
      server: server.reducer,
    },
    middleware: (base) => base({ immutableCheck: false, serializableCheck: false }).concat(server.middleware),
  });

export type Store = ReturnType<typeof makeStore>;
export type State = ReturnType<Store['getState']>;
export const useApp = useSelector.withTypes<State>();
export const useSend = useDispatch.withTypes<Store['dispatch']>();

import { useCallback, useEffect } from 'react';
import { useStore } from 'react-redux';
import { server, type Trouble } from '../../app/api.ts';
import { saved, saveFailed, saving } from '../../app/workbench.ts';
import { type State, useSend } from '../../app/store.ts';

const QUIET_MS = 700;

/** Saves the chart at hand: by itself a moment after the last change, or when asked. Resolves to the id, or null on failure. */
export function useSave(): (name?: string) => Promise<string | null> {
  const send = useSend();
  const store = useStore<State>();
  const [create] = server.useCreateChartMutation();
  const [change] = server.useChangeChartMutation();
  return useCallback(
    async (name) => {
      const { chartId, revision, draft } = store.getState().workbench;
      const sent = draft;
      const body = name === undefined ? draft : { ...draft, name };
      send(saving());
      const request =
        chartId === null
          ? create(body).unwrap()
          : change({ id: chartId, change: { ...body, revision } }).unwrap();
      try {
        const chart = await request;
        send(saved({ chart, sent, chartId }));
        return chart.id;
      } catch (trouble) {
        send(saveFailed(trouble as Trouble));
        return null;
      }
    },
    [store, create, change, send],
  );
}

/** Autosave of a chart that has a place on the server; also when the page is left. */
export function useAutosave(save: () => Promise<unknown>): void {
  const store = useStore<State>();
  useEffect(() => {
    let timer: ReturnType<typeof setTimeout> | undefined;
    let waiting: unknown = null;
    const follow = (): void => {
      const { chartId, save: now, draft } = store.getState().workbench;
      const wanted = chartId !== null && now === 'pending' ? draft : null;
      if (wanted === waiting) return;
      waiting = wanted;
      clearTimeout(timer);
      if (wanted) timer = setTimeout(() => void save(), QUIET_MS);
    };
    follow();
    const leave = store.subscribe(follow);
    return () => {
      leave();
      clearTimeout(timer);
    };
  }, [store, save]);
  // What was changed a moment before leaving is saved on the way out.
  useEffect(
    () => () => {
      const { save: now, chartId: id } = store.getState().workbench;
      if (now === 'pending' && id !== null) void save();
    },
    [store, save],
  );
}

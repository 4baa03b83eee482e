import { CHART_LIMITS, type ChartDraft } from '@crow-ladder/contract';
import { useCallback, useEffect, useRef } from 'react';
import { useStore } from 'react-redux';
import { server, type Trouble } from '../../app/api.ts';
import { onLeaving } from '../../app/later.ts';
import { saved, saveFailed, saving } from '../../app/workbench.ts';
import { said, type State, useSend } from '../../app/store.ts';

const QUIET_MS = 700;

/** What a player's own version is called beside the one that stands on the server. */
export const nameOfMine = (name: string): string => `${name.slice(0, CHART_LIMITS.name - 7)} (mine)`;

interface SaveOptions {
  /** For a chart that has none yet. */
  readonly name?: string;
  /** The page may be gone before the answer comes. */
  readonly leaving?: boolean;
}
export type SaveChart = (options?: SaveOptions) => Promise<string | null>;

/** Saves the chart at hand: by itself a moment after the last change, or when asked. Resolves to the id, or null on failure. */
export function useSave(): SaveChart {
  const send = useSend();
  const store = useStore<State>();
  const [create] = server.useCreateChartMutation();
  const [change] = server.useChangeChartMutation();
  const onItsWay = useRef<Promise<unknown>>(null);
  /** Work that could not be saved and is no longer shown: kept as a chart of its own where that helps, and told in any case. */
  const rescue = useCallback(
    async (draft: ChartDraft, { code, message }: Trouble): Promise<void> => {
      const helps = code === 'conflict' || code === 'not-found';
      const copy = helps ? (await create({ ...draft, name: nameOfMine(draft.name) })).data : undefined;
      const kept = copy ? ` What you changed is kept as “${copy.name}”.` : '';
      send(said({ text: `“${draft.name}” could not be saved: ${message}${kept}` }));
    },
    [create, send],
  );
  const shown = useRef(false);
  useEffect(() => {
    shown.current = true;
    return () => {
      shown.current = false;
      const { save: state, draft, trouble } = store.getState().workbench;
      if (trouble && (state === 'conflict' || state === 'failed')) void rescue(draft, trouble);
    };
  }, [store, rescue]);
  return useCallback(
    async ({ name, leaving = false } = {}) => {
      // One save after the other: the next one is made from the revision that the last one gave. Who leaves cannot wait,
      // and counts on that revision.
      while (onItsWay.current && !leaving) await onItsWay.current.catch(() => null);
      const { chartId, revision, draft: sent, save: state } = store.getState().workbench;
      if (state === 'conflict') return null;
      const body = name === undefined ? sent : { ...sent, name };
      const from = revision + (onItsWay.current ? 1 : 0);
      send(saving());
      const request =
        chartId === null
          ? create(body).unwrap()
          : change({ id: chartId, change: { ...body, revision: from }, leaving }).unwrap();
      onItsWay.current = request;
      try {
        const chart = await request;
        send(saved({ chart, sent, chartId }));
        return chart.id;
      } catch (error) {
        const trouble = error as Trouble;
        const atHand = store.getState().workbench.chartId === chartId;
        if (atHand) send(saveFailed(trouble));
        if (!atHand || !shown.current) void rescue(sent, trouble);
        return null;
      } finally {
        if (onItsWay.current === request) onItsWay.current = null;
      }
    },
    [store, create, change, send, rescue],
  );
}

/** Autosave of a chart that has a place on the server; also when the page is left, which waits where it could lose work. */
export function useAutosave(save: SaveChart): void {
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
    /** What was changed a moment before leaving is saved on the way out. */
    const leave = (): void => {
      const { save: now, chartId } = store.getState().workbench;
      if (now === 'pending' && chartId !== null) void save({ leaving: true });
    };
    const ask = (e: BeforeUnloadEvent): void => {
      const { save: now } = store.getState().workbench;
      if (now === 'failed' || now === 'conflict') e.preventDefault();
    };
    follow();
    const stop = store.subscribe(follow);
    const stay = onLeaving(leave);
    window.addEventListener('beforeunload', ask);
    return () => {
      stop();
      clearTimeout(timer);
      stay();
      window.removeEventListener('beforeunload', ask);
      leave();
    };
  }, [store, save]);
}

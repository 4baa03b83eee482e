import { type PlanTask } from '@crow-ladder/core';
import { proxy, type Remote, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { type PlanAnswer, type planner } from './planner.ts';

interface Planning {
  /** What the task came to; null while it is being worked on, or where it was called off. */
  readonly answer: PlanAnswer | null;
  /** How many ways were found so far; null where nothing is being worked on. */
  readonly found: number | null;
  readonly cancel: () => void;
}
type State = { readonly id: string; readonly answer: PlanAnswer | null; readonly found: number | null };

/**
 * Plans in a worker: a task begins anew when it differs, and what is no longer asked for is ended with its worker. A task
 * that was called off is not begun again until another one is asked for.
 */
export function usePlan(task: PlanTask | null, k: number): Planning {
  const id = task ? JSON.stringify([task, k]) : '';
  const [state, setState] = useState<State>({ id: '', answer: null, found: null });
  const ending = useRef<() => void>(() => undefined);
  useEffect(() => {
    if (!id) return;
    const worker = new Worker(new URL('./planner.ts', import.meta.url), { type: 'module' });
    const remote: Remote<typeof planner> = wrap(worker);
    const [asked, count] = JSON.parse(id) as [PlanTask, number];
    const onFound = (found: number): void => setState({ id, answer: null, found });
    const end = (): void => worker.terminate();
    ending.current = end;
    // A worker that was ended answers no more.
    void remote.plan(asked, count, proxy(onFound)).then((answer) => {
      setState({ id, answer, found: null });
      end();
    });
    return end;
  }, [id]);
  const mine = state.id === id;
  return {
    answer: mine ? state.answer : null,
    found: mine ? state.found : task && 0,
    cancel: () => {
      ending.current();
      setState({ id, answer: null, found: null });
    },
  };
}

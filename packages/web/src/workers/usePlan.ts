import { type PlanTask } from '@crow-ladder/core';
import { proxy, type Remote, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { type PlanAnswer, type planner } from './planner.ts';

/** How the work on a task stands. */
type Work =
  | { readonly is: 'working'; readonly found: number }
  | { readonly is: 'done'; readonly answer: PlanAnswer }
  | { readonly is: 'calledOff' | 'failed' };

interface Planning {
  readonly work: Work;
  readonly cancel: () => void;
  readonly again: () => void;
}

/** Plans in a worker: a task begins anew when it differs, and what is no longer asked for is ended with its worker. */
export function usePlan(task: PlanTask | null, k: number): Planning {
  const id = task ? JSON.stringify([task, k]) : '';
  const [state, setState] = useState<{ readonly id: string; readonly work: Work } | null>(null);
  const [attempt, setAttempt] = useState(0);
  const ending = useRef<() => void>(() => undefined);
  useEffect(() => {
    if (!id) return;
    const worker = new Worker(new URL('./planner.ts', import.meta.url), { type: 'module' });
    const remote: Remote<typeof planner> = wrap(worker);
    const [asked, count] = JSON.parse(id) as [PlanTask, number];
    const end = (): void => worker.terminate();
    ending.current = end;
    worker.onerror = () => setState({ id, work: { is: 'failed' } });
    // Progress comes on a way of its own, and may come after the answer.
    let answered = false;
    const onFound = (found: number): void => {
      if (!answered) setState({ id, work: { is: 'working', found } });
    };
    void remote.plan(asked, count, proxy(onFound)).then((answer) => {
      answered = true;
      setState({ id, work: { is: 'done', answer } });
      end();
    });
    return end;
  }, [id, attempt]);
  return {
    work: state?.id === id ? state.work : { is: 'working', found: 0 },
    cancel: () => {
      ending.current();
      setState({ id, work: { is: 'calledOff' } });
    },
    again: () => {
      setState(null);
      setAttempt((n) => n + 1);
    },
  };
}

import { proxy, type Remote, wrap } from 'comlink';
import { useEffect, useMemo, useRef, useState } from 'react';

/** What a worker offers: one task after the other, with word of how far it is. */
export interface TaskWorker<Task, Answer> {
  readonly work: (task: Task, onProgress: (done: number) => void) => Answer;
}

/** How the work on a task stands. */
export type Work<Answer> =
  | { readonly is: 'working'; readonly done: number }
  | { readonly is: 'done'; readonly answer: Answer }
  | { readonly is: 'calledOff' | 'failed' };

interface Working<Answer> {
  readonly work: Work<Answer>;
  readonly cancel: () => void;
  readonly again: () => void;
}

/** Works in a worker: a task begins anew when it differs, and what is no longer asked for is ended with its worker. */
export function useWork<Task, Answer>(start: () => Worker, task: Task | null): Working<Answer> {
  // The same task, drawn again, is not put into words again.
  const id = useMemo(() => (task ? JSON.stringify(task) : ''), [task]);
  const [state, setState] = useState<{ readonly id: string; readonly work: Work<Answer> } | null>(null);
  const [attempt, setAttempt] = useState(0);
  const ending = useRef<() => void>(() => undefined);
  useEffect(() => {
    if (!id) return;
    const worker = start();
    const remote: Remote<TaskWorker<Task, Answer>> = wrap(worker);
    const end = (): void => worker.terminate();
    ending.current = end;
    worker.onerror = () => setState({ id, work: { is: 'failed' } });
    // Progress comes on a way of its own, and may come after the answer.
    let answered = false;
    const onProgress = (done: number): void => {
      if (!answered) setState({ id, work: { is: 'working', done } });
    };
    void (remote.work as (task: Task, told: unknown) => Promise<Answer>)(
      JSON.parse(id) as Task,
      proxy(onProgress),
    ).then(
      (answer) => {
        answered = true;
        setState({ id, work: { is: 'done', answer } });
        end();
      },
      (error: unknown) => {
        console.error(error);
        setState({ id, work: { is: 'failed' } });
        end();
      },
    );
    return end;
  }, [id, attempt, start]);
  return {
    work: state?.id === id ? state.work : { is: 'working', done: 0 },
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

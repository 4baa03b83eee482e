import { type Accidentals, type Result } from '@crow-ladder/core';
import { type PhraseGround } from '@crow-ladder/core/phrases';
import { type Choice, type Untimed } from '@crow-ladder/formats';
import { proxy, type Remote, wrap } from 'comlink';
import { useEffect, useRef, useState } from 'react';
import { type Summary, type TakenHere } from '../workers/opened.ts';
import { type Given, type Opener } from '../workers/opened.ts';

/** How work on a file stands: how far it is, or what came of it. */
export type Stand<T> =
  | { readonly is: 'idle' | 'failed' }
  | { readonly is: 'working'; readonly done: number }
  | { readonly is: 'done'; readonly answer: Result<T> };

const IDLE = { is: 'idle' } as const;
type Work<T> = (remote: Remote<Opener>, onProgress: (done: number) => void) => Promise<Result<T>>;

/** One thing asked of the worker; a later one is not overtaken by an earlier one. */
function useAsked<T>(remote: Remote<Opener> | null, id: string | null, work: Work<T>): Stand<T> {
  const [stand, setStand] = useState<{ readonly id: string | null; readonly stand: Stand<T> }>({
    id: null,
    stand: IDLE,
  });
  const now = useRef(work);
  useEffect(() => {
    now.current = work;
  });
  useEffect(() => {
    if (!remote || id === null) return;
    let wanted = true;
    const set = (it: Stand<T>): void => {
      if (wanted) setStand({ id, stand: it });
    };
    let answered = false;
    const onProgress = proxy((done: number) => !answered && set({ is: 'working', done }));
    now.current(remote, onProgress).then(
      (answer) => {
        answered = true;
        set({ is: 'done', answer });
      },
      () => set({ is: 'failed' }),
    );
    return () => {
      wanted = false;
    };
  }, [remote, id]);
  if (id === null) return IDLE;
  return stand.id === id ? stand.stand : { is: 'working', done: 0 };
}

interface Opened {
  readonly summary: Stand<Summary>;
  readonly taken: Stand<TakenHere>;
}

/** A file read in a worker of its own, and a line of it taken; both end with the page that asked for them. */
export function useOpened(
  given: Given | null,
  untimed: Untimed,
  choice: Choice | null,
  ground: PhraseGround,
  accidentals: Accidentals,
): Opened {
  const [remote, setRemote] = useState<Remote<Opener> | null>(null);
  const [nth, setNth] = useState(0);
  useEffect(() => {
    if (!given) return;
    const worker = new Worker(new URL('../workers/opener.ts', import.meta.url), { type: 'module' });
    setRemote(() => wrap<Opener>(worker));
    setNth((n) => n + 1);
    return () => {
      setRemote(null);
      worker.terminate();
    };
  }, [given]);
  const fileId = given && remote ? `${nth} ${JSON.stringify(untimed)}` : null;
  const summary = useAsked<Summary>(remote, fileId, (it, told) =>
    it.open(given!, ground.neck.open, untimed, told),
  );
  const read = summary.is === 'done' && summary.answer.ok;
  const taken = useAsked<TakenHere>(
    remote,
    read && choice ? `${fileId} ${JSON.stringify([choice, ground])}` : null,
    (it, told) => it.take(choice!, ground, accidentals, told),
  );
  return { summary, taken };
}

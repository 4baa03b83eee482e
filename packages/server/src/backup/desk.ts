import { Worker } from 'node:worker_threads';
import { type ApiError, type Checked } from '@crow-ladder/contract';
import { type Remote, wrap } from 'comlink';
import nodeEndpoint from 'comlink/dist/umd/node-adapter.js';
import { type Taken } from './intake.ts';

/** What the worker does, by the id of a backup that comes in or goes out. */
export interface Desk {
  /** Begins to take a backup in. */
  readonly begin: (id: string) => Promise<void>;
  readonly take: (
    id: string,
    bytes: Uint8Array,
  ) => Promise<{ readonly charts: number; readonly error: ApiError | null }>;
  readonly end: (id: string) => Promise<Checked<Taken>>;
  /** Puts what was taken in in place of the library. */
  readonly replace: (id: string) => Promise<void>;
  readonly drop: (id: string) => Promise<void>;
  /** Begins to give a backup out, of the library as it stands at that moment. */
  readonly open: (id: string) => Promise<void>;
  /** Some more of it; null at its end. */
  readonly next: (id: string) => Promise<Uint8Array | null>;
  /** Lets go of the state that is read. */
  readonly stop: (id: string) => Promise<void>;
}

interface Running {
  readonly worker: Worker;
  readonly desk: Remote<Desk>;
  /** Fails once the worker has ended. */
  readonly ended: Promise<never>;
}

/** The desk in a worker, which is started when it is first asked, and again should it end by itself. */
export function deskFor(path: string): Desk & { close(): Promise<unknown> } {
  let is: Running | null = null;
  const started = (): Running => {
    const worker = new Worker(new URL('./start.mjs', import.meta.url), {
      workerData: { path },
      execArgv: [],
    });
    worker.unref();
    const ended = new Promise<never>((_, failed) => {
      const gone = (error: Error): void => {
        if (is?.worker === worker) is = null;
        failed(error);
      };
      worker.on('error', gone);
      worker.on('exit', () => gone(new Error('The worker has ended.')));
    });
    ended.catch(() => undefined);
    return { worker, desk: wrap<Desk>(nodeEndpoint(worker)), ended };
  };
  const ask = (name: keyof Desk) =>
    ((...args: [string, Uint8Array]) => {
      const { desk, ended } = (is ??= started());
      return Promise.race([desk[name](...args), ended]);
    }) as never;
  return {
    begin: ask('begin'),
    take: ask('take'),
    end: ask('end'),
    replace: ask('replace'),
    drop: ask('drop'),
    open: ask('open'),
    next: ask('next'),
    stop: ask('stop'),
    close: async () => is?.worker.terminate(),
  };
}

import { Worker } from 'node:worker_threads';
import { type ApiError, type Checked } from '@crow-ladder/contract';
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
  readonly stop: (id: string) => Promise<void>;
}

export interface Asked {
  readonly nth: number;
  readonly name: keyof Desk;
  readonly args: readonly unknown[];
}
interface Answer {
  readonly nth: number;
  readonly value?: unknown;
  readonly failed?: { readonly code: string; readonly message?: string; readonly stack?: string };
}
interface Waiting {
  readonly resolve: (value: never) => void;
  readonly reject: (error: unknown) => void;
}

/** The desk in a worker, which is started when it is first asked, and again should it end by itself. */
export function deskFor(path: string): Desk & { close(): Promise<unknown> } {
  let worker: Worker | null = null;
  let count = 0;
  const waiting = new Map<number, Waiting>();
  const started = (): Worker => {
    const it = new Worker(new URL('./start.mjs', import.meta.url), { workerData: { path }, execArgv: [] });
    it.unref();
    it.on('message', ({ nth, value, failed }: Answer) => {
      const asked = waiting.get(nth);
      waiting.delete(nth);
      if (failed) asked?.reject(Object.assign(new Error(failed.message), failed));
      else asked?.resolve(value as never);
    });
    const gone = (error?: unknown): void => {
      if (worker === it) worker = null;
      for (const { reject } of waiting.values()) reject(error ?? new Error('The worker has ended.'));
      waiting.clear();
    };
    it.on('error', gone);
    it.on('exit', () => gone());
    return it;
  };
  const ask =
    (name: keyof Desk) =>
    (...args: readonly unknown[]): Promise<never> =>
      new Promise((resolve, reject) => {
        worker ??= started();
        waiting.set(++count, { resolve, reject });
        worker.postMessage({ nth: count, name, args } satisfies Asked);
      });
  const names = ['begin', 'take', 'end', 'replace', 'drop', 'open', 'next', 'stop'] as const;
  const desk = Object.fromEntries(names.map((name) => [name, ask(name)])) as unknown as Desk;
  return { ...desk, close: async () => worker?.terminate() };
}

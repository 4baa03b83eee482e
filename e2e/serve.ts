import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { type Running, running } from '../scripts/running.ts';

export const root = resolve(import.meta.dirname, '..');

/** The built application with a library of its own, on a port that is free; it can be stopped and started again at its address. */
export interface Application {
  readonly base: string;
  readonly start: () => Promise<void>;
  /** Stops it, and resolves once it has ended. */
  readonly stop: () => Promise<void>;
  /** Ends it for good, with its library. */
  readonly end: () => Promise<void>;
}

export async function application(env: Readonly<Record<string, string>> = {}): Promise<Application> {
  const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-'));
  const with_ = { CROW_LADDER_DB: join(folder, 'library.sqlite'), ...env };
  let server: Running | null = running(with_);
  const base = await server.ready;
  const stop = async (): Promise<void> => {
    server?.child.kill();
    await server?.ended;
    server = null;
  };
  return {
    base,
    start: async () => {
      server = running({ ...with_, CROW_LADDER_PORT: new URL(base).port });
      await server.ready;
    },
    stop,
    end: async () => {
      await stop();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

export const root = resolve(import.meta.dirname, '..');

/** The built application on a port and a library of its own; it can be stopped and started again. */
export function application(port: number, env: Readonly<Record<string, string>> = {}) {
  const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-'));
  const base = `http://127.0.0.1:${port}`;
  let server: ChildProcess | null = null;
  const up = (): Promise<boolean> =>
    fetch(`${base}/api/health`).then(
      (r) => r.ok,
      () => false,
    );
  const start = async (): Promise<void> => {
    server = spawn(process.execPath, ['--import', 'tsx', 'packages/server/src/main.ts'], {
      cwd: root,
      env: {
        ...process.env,
        CROW_LADDER_DB: join(folder, 'demo.sqlite'),
        CROW_LADDER_PORT: String(port),
        ...env,
      },
      stdio: 'ignore',
    });
    for (let i = 0; i < 100 && !(await up()); i++) await new Promise((r) => setTimeout(r, 100));
  };
  /** Stops it, and resolves once it has ended. */
  const stop = (): Promise<void> =>
    new Promise((done) => {
      if (!server) return done();
      server.once('exit', () => done());
      server.kill();
      server = null;
    });
  return { base, start, stop, remove: () => rmSync(folder, { recursive: true, force: true }) };
}

/** The built application with nothing but the demo data, on a port of its own. */
export async function serve(port: number): Promise<{ readonly base: string; readonly stop: () => void }> {
  const { base, start, stop, remove } = application(port);
  await start();
  return { base, stop: () => void stop().then(remove) };
}

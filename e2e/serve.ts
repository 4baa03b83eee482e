import { spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';

export const root = resolve(import.meta.dirname, '..');

/** The built application with nothing but the demo data, on a port of its own. */
export async function serve(port: number): Promise<{ readonly base: string; readonly stop: () => void }> {
  const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-'));
  const server = spawn(process.execPath, ['--import', 'tsx', 'packages/server/src/main.ts'], {
    cwd: root,
    env: { ...process.env, CROW_LADDER_DB: join(folder, 'demo.sqlite'), CROW_LADDER_PORT: String(port) },
    stdio: 'ignore',
  });
  const base = `http://127.0.0.1:${port}`;
  const up = (): Promise<boolean> =>
    fetch(`${base}/api/health`).then(
      (r) => r.ok,
      () => false,
    );
  for (let i = 0; i < 100 && !(await up()); i++) await new Promise((r) => setTimeout(r, 100));
  return {
    base,
    stop: () => {
      server.kill();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

import { type ChildProcessByStdio, spawn } from 'node:child_process';
import { resolve } from 'node:path';
import { type Readable } from 'node:stream';

type ChildProcess = ChildProcessByStdio<null, Readable, Readable>;

/** A server in a process of its own. */
export interface Running {
  readonly child: ChildProcess;
  /** Resolves to its address once it is ready; fails with what it said where it ends before. */
  readonly ready: Promise<string>;
  /** How it ended, and all that it said. */
  readonly ended: Promise<{ readonly code: number | null; readonly said: string }>;
}

const all = new Set<ChildProcess>();
/** Ends every server that was left running. */
export async function endAll(): Promise<void> {
  await Promise.all(
    [...all].map((child) => {
      const gone = new Promise((done) => child.once('close', done));
      child.kill('SIGKILL');
      return gone;
    }),
  );
}

/** Starts a server, on a port that is free; it is run from the folder of the project. */
export function running(env: Readonly<Record<string, string>>, ...args: readonly string[]): Running {
  const child = spawn(
    process.execPath,
    ['--import', 'tsx', resolve('packages/server/src/main.ts'), ...args],
    {
      env: { ...process.env, CROW_LADDER_PORT: '0', ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    },
  );
  all.add(child);
  let said = '';
  const ended = new Promise<{ code: number | null; said: string }>((done) =>
    child.once('close', (code) => {
      all.delete(child);
      done({ code, said });
    }),
  );
  const ready = new Promise<string>((found, failed) => {
    const hear = (text: Buffer): void => {
      said += String(text);
      const address = /^Crow Ladder is ready: (\S+)$/m.exec(said)?.[1];
      if (address) found(address.replace('0.0.0.0', '127.0.0.1'));
    };
    child.stdout.on('data', hear);
    child.stderr.on('data', hear);
    void ended.then(() => failed(new Error(`The server ended: ${said}`)));
  });
  // Who does not wait for it is not told that it never came.
  ready.catch(() => undefined);
  return { child, ready, ended };
}

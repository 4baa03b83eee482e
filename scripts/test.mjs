import { spawn } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { gate } from './gate.mjs';
import { browser, install, outside, ROOT, say } from './prepare.mjs';

/** A command that has not ended after this long, in ms, is ended: a run that fails ends. */
const ENDLESS_MS = 40 * 60_000;
const results = join(ROOT, 'test-results');

install();
browser();
outside();
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
const run = ([command, ...args]) =>
  new Promise((done) => {
    const child = spawn(command, args, {
      cwd: ROOT,
      stdio: 'inherit',
      timeout: ENDLESS_MS,
      killSignal: 'SIGKILL',
    });
    child.on('error', () => done(1));
    child.on('exit', (code) => done(code ?? 1));
  });
const read = (name) => {
  const path = join(results, name);
  return existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : null;
};
process.exit(await gate({ run, read, say, now: () => Date.now() }));

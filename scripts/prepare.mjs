import { spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';

export const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '..');
export const say = (text) => console.log(text);

/** Runs a command in the project and returns its exit code. */
export const run = (command, args, options = {}) =>
  spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', ...options }).status ?? 1;

/** Installs the packages when they are missing or the lock file has changed since. */
export function install() {
  const [major] = process.versions.node.split('.').map(Number);
  if (major < 20) {
    say(`Crow Ladder needs Node 20 or later; this is ${process.versions.node}.`);
    process.exit(1);
  }
  const mark = join(ROOT, 'node_modules/.crow-ladder');
  const wanted = createHash('sha256')
    .update(readFileSync(join(ROOT, 'package-lock.json')))
    .digest('hex');
  if (existsSync(mark) && readFileSync(mark, 'utf8') === wanted) return;
  say(
    'Installing packages. The SQLite driver may compile for about two minutes where no ready binary can be fetched.',
  );
  const quiet = ['--no-audit', '--no-fund', '--loglevel=error'];
  if (run('npm', ['ci', ...quiet]) !== 0) {
    say('A clean install did not work; trying an ordinary one.');
    if (run('npm', ['install', '--no-save', ...quiet]) !== 0) process.exit(1);
  }
  writeFileSync(mark, wanted);
}

/** Time of the newest file under a folder or of one file. */
const newest = (path) =>
  statSync(path).isDirectory()
    ? Math.max(
        0,
        ...readdirSync(path)
          .filter((n) => n !== 'dist' && n !== 'node_modules')
          .map((n) => newest(join(path, n))),
      )
    : statSync(path).mtimeMs;

/** Builds the interface when its sources are newer than the last build. */
export function build() {
  const built = join(ROOT, 'packages/web/dist/index.html');
  const sources = ['core/src', 'picture', 'contract/src', 'web']
    .map((s) => `packages/${s}`)
    .concat('package-lock.json');
  if (existsSync(built) && statSync(built).mtimeMs > Math.max(...sources.map((s) => newest(join(ROOT, s)))))
    return;
  say('Building the interface.');
  if (run('npx', ['vite', 'build', 'packages/web', '--logLevel', 'warn']) !== 0) process.exit(1);
}

export const SERVER = ['--import', 'tsx', 'packages/server/src/main.ts'];

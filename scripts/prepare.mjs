import { spawnSync } from 'node:child_process';
import { existsSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { browserIn, isBuilt, isFit, isInstalled, markInstalled, outsideMissing } from './project.mjs';

export const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '..');
export const say = (text) => console.log(text);

/** Runs a command in the project and returns its exit code. */
export const run = (command, args, options = {}) =>
  spawnSync(command, args, { cwd: ROOT, stdio: 'inherit', ...options }).status ?? 1;

/** Installs the packages when they are missing or the lock file has changed since. */
export function install() {
  if (!isFit(process.versions.node)) {
    say(`Crow Ladder needs Node 20 or later; this is ${process.versions.node}.`);
    process.exit(1);
  }
  if (isInstalled(ROOT)) return;
  say(
    'Installing packages. The SQLite driver may compile for about two minutes where no ready binary can be fetched.',
  );
  const quiet = ['--no-audit', '--no-fund', '--loglevel=error'];
  if (run('npm', ['ci', ...quiet]) !== 0) {
    say('A clean install did not work; trying an ordinary one.');
    if (run('npm', ['install', '--no-save', ...quiet]) !== 0) process.exit(1);
  }
  markInstalled(ROOT);
}

export const BUILD = ['vite', 'build', 'packages/web', '--logLevel', 'warn'];
/** Builds the interface when its sources are newer than the last build. */
export function build() {
  if (isBuilt(ROOT)) return;
  say('Building the interface.');
  if (run('npx', BUILD) !== 0) process.exit(1);
}

/** Installs packages of Debian where that is allowed. */
function debian(what, packages) {
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get')) return;
  say(`Installing ${what} from the system’s packages.`);
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
  run('apt-get', ['update', '-qq'], { env });
  run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', ...packages], {
    env,
    stdio: ['ignore', 'ignore', 'inherit'],
  });
}

/** Finds Chromium, or installs it from Debian's packages where that is allowed; otherwise says how. */
export function browser() {
  if (!browserIn(process.env)) debian('Chromium', ['chromium']);
  if (browserIn(process.env)) return;
  say(
    'The browser tests need Chromium: install it (on Debian: sudo apt-get install chromium), or set CHROMIUM_PATH.',
  );
  process.exit(1);
}

/** Finds the programs that read what is written for others, or installs them as the browser; otherwise says how. */
export function outside() {
  const missing = outsideMissing(process.env);
  if (missing.length) debian('readers of MIDI, ABC and XML', missing);
  const still = outsideMissing(process.env);
  if (!still.length) return;
  say(`The tests of open formats need other programs: on Debian, sudo apt-get install ${still.join(' ')}`);
  process.exit(1);
}

export const SERVER = ['--import', 'tsx', 'packages/server/src/main.ts'];

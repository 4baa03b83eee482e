import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { build, install, ROOT, run, say } from './prepare.mjs';

/** Finds Chromium, or installs it from Debian's packages where that is allowed; otherwise says how. */
function browser() {
  const places = [process.env.CHROMIUM_PATH, '/usr/bin/chromium', '/usr/bin/chromium-browser'];
  const found = () => places.find((p) => p && existsSync(p));
  if (!found() && process.getuid?.() === 0 && existsSync('/usr/bin/apt-get')) {
    say('Installing Chromium from the system’s packages.');
    const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' };
    run('apt-get', ['update', '-qq'], { env });
    run('apt-get', ['install', '-y', '-qq', '--no-install-recommends', 'chromium'], {
      env,
      stdio: ['ignore', 'ignore', 'inherit'],
    });
  }
  if (!found()) {
    say(
      'The browser tests need Chromium: install it (on Debian: sudo apt-get install chromium), or set CHROMIUM_PATH.',
    );
    process.exit(1);
  }
}

const results = join(ROOT, 'test-results');
const read = (name) => {
  const path = join(results, name);
  return existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : null;
};

install();
browser();
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
let failed = 0;
let passed = 0;
for (const [what, script] of [
  ['types', 'typecheck'],
  ['lint', 'lint'],
]) {
  say(`Checking ${what}.`);
  if (run('npm', ['run', '--silent', script]) !== 0) failed++;
}
say('Running the unit tests.');
const unit = run('npx', ['jest', '--json', `--outputFile=${join(results, 'jest.json')}`]);
const jest = read('jest.json');
passed += jest?.numPassedTests ?? 0;
failed += (jest?.numFailedTests ?? 0) + (jest?.numRuntimeErrorTestSuites ?? 0);
if (unit !== 0 && !jest?.numFailedTests && !jest?.numRuntimeErrorTestSuites) failed++;
build();
say('Running the browser tests.');
const e2e = run('npx', ['playwright', 'test', '-c', 'e2e/playwright.config.ts']);
const stats = read('playwright.json')?.stats;
passed += (stats?.expected ?? 0) + (stats?.flaky ?? 0);
failed += stats?.unexpected ?? 0;
if (e2e !== 0 && !stats?.unexpected) failed++;
say(`tests: ${passed} passed, ${failed} failed`);
process.exit(failed ? 1 : 0);

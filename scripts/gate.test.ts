import { spawnSync } from 'node:child_process';
import { chmodSync, mkdirSync, mkdtempSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { countBrowser, countUnit, gate, STAGES } from './gate.mjs';
import { browserIn, isBuilt, isFit, isInstalled, markInstalled, outsideMissing } from './project.mjs';

let root = '';
beforeEach(() => (root = mkdtempSync(join(tmpdir(), 'crow-ladder-'))));
afterEach(() => rmSync(root, { recursive: true, force: true }));

describe('what tests came to', () => {
  const unit = { numPassedTests: 7, numFailedTests: 0, numRuntimeErrorTestSuites: 0 };
  test.each([
    ['all passed', unit, 0, 0],
    ['two failed', { ...unit, numFailedTests: 2 }, 1, 2],
    ['a file could not be run', { ...unit, numRuntimeErrorTestSuites: 1 }, 1, 1],
    ['it ended badly all the same', unit, 1, 1],
    ['no test was run', { ...unit, numPassedTests: 0 }, 0, 1],
    ['no report was left', null, 0, 1],
  ])('unit tests: %s', (_, report, code, failed) => {
    expect(countUnit(report, code)).toEqual({ passed: report?.numPassedTests ?? 0, failed });
  });

  const stats = { expected: 7, unexpected: 0, flaky: 0, skipped: 0 };
  test.each([
    ['all passed', stats, 0, 0],
    ['two failed', { ...stats, unexpected: 2 }, 1, 2],
    ['two failed and one passed at the second try', { ...stats, unexpected: 2, flaky: 1 }, 1, 3],
    ['one passed at the second try only', { ...stats, flaky: 1 }, 0, 1],
    ['one was skipped', { ...stats, skipped: 1 }, 0, 1],
    ['it ended badly all the same', stats, 1, 1],
    ['no test was run', { ...stats, expected: 0 }, 0, 1],
  ])('browser tests: %s', (_, of, code, failed) => {
    expect(countBrowser({ stats: of }, code)).toEqual({ passed: of.expected, failed });
  });
  test('browser tests: no report was left', () => {
    expect(countBrowser(null, 0)).toEqual({ passed: 0, failed: 1 });
  });
});

describe('the gate', () => {
  const reports: Record<string, object> = {
    'jest.json': { numPassedTests: 5, numFailedTests: 0, numRuntimeErrorTestSuites: 0 },
    'playwright.json': { stats: { expected: 3, unexpected: 0, flaky: 0, skipped: 0 } },
  };
  async function through(codes: Record<string, number> = {}, given = reports, tookMs = 10_000) {
    const said: string[] = [];
    const ran: string[] = [];
    let now = 0;
    const code = await gate({
      run: (command: readonly string[]) => {
        ran.push(command.at(-1)!);
        now += tookMs;
        return Promise.resolve(codes[command.at(-1)!] ?? 0);
      },
      read: (name: string) => given[name] ?? null,
      say: (text: string) => said.push(text),
      now: () => now,
    });
    return { code, said, ran };
  }

  test('goes through every stage, says what each took, and counts the tests in its last line', async () => {
    const { code, said, ran } = await through();
    expect(ran).toEqual(['check:page', 'check:rest', 'unit', 'build', 'e2e']);
    expect(code).toBe(0);
    expect(said.slice(-5)).toEqual([
      'types and lint: passed in 20 s, budget 75 s',
      'unit tests: passed in 10 s, budget 120 s',
      'build: passed in 10 s, budget 30 s',
      'browser tests: passed in 10 s, budget 240 s',
      'tests: 8 passed, 0 failed',
    ]);
  });

  test.each(['check:page', 'check:rest', 'unit', 'build', 'e2e'])(
    'is red where %s is, and goes on to the end',
    async (what) => {
      const { code, said, ran } = await through({ [what]: 2 });
      expect([code, ran.length, said.at(-1)]).toEqual([1, 5, 'tests: 8 passed, 1 failed']);
    },
  );

  test('is red for a failed test whatever the exit codes say', async () => {
    const { code, said } = await through(
      {},
      { ...reports, 'playwright.json': { stats: { expected: 3, unexpected: 1 } } },
    );
    expect([code, said.at(-1)]).toEqual([1, 'tests: 8 passed, 1 failed']);
    expect(said).toContain('browser tests: failed in 10 s, budget 240 s');
  });

  test('says where a budget is exceeded, which is no failure', async () => {
    const { code, said } = await through({}, reports, 121_000);
    expect(said).toContain('unit tests: passed in 121 s, budget 120 s, over it');
    expect(code).toBe(0);
  });

  test('runs commands that there are', () => {
    const { scripts } = jest.requireActual<{ scripts: Record<string, string> }>('../package.json');
    for (const { commands } of STAGES)
      for (const [npm, ...args] of commands)
        expect([npm, scripts[args.at(-1)!]]).toEqual(['npm', expect.any(String)]);
  });
});

describe('.ci/run', () => {
  /** What it ends with where `npm test` prints some lines and ends with a code. */
  function ran(lines: string, code: number): readonly [string, number | null] {
    writeFileSync(join(root, 'npm'), `#!/bin/sh\ntest "$1" = test && printf '${lines}'\nexit ${code}\n`);
    chmodSync(join(root, 'npm'), 0o755);
    const { stdout, status } = spawnSync('bash', [resolve('.ci/run')], {
      env: { ...process.env, PATH: `${root}:${process.env['PATH']}` },
      encoding: 'utf8',
    });
    return [stdout.trimEnd().split('\n').at(-1)!, status];
  }

  test('ends with the count of the tests and the code of the gate', () => {
    expect(ran('tests: 3 passed, 0 failed\\nbye\\n', 0)).toEqual(['tests: 3 passed, 0 failed', 0]);
    expect(ran('tests: 3 passed, 2 failed\\n', 1)).toEqual(['tests: 3 passed, 2 failed', 1]);
    expect(ran('It could not be installed.\\n', 1)).toEqual(['tests: 0 passed, 1 failed', 1]);
  });
});

describe('the project', () => {
  const write = (path: string, at: number, text = ''): void => {
    mkdirSync(dirname(join(root, path)), { recursive: true });
    writeFileSync(join(root, path), text);
    utimesSync(join(root, path), at, at);
  };

  test('is installed as long as its lock file is the one that it was installed from', () => {
    write('package-lock.json', 1, 'one');
    mkdirSync(join(root, 'node_modules'));
    expect(isInstalled(root)).toBe(false);
    markInstalled(root);
    expect(isInstalled(root)).toBe(true);
    write('package-lock.json', 1, 'two');
    expect(isInstalled(root)).toBe(false);
  });

  test('is built as long as nothing that it is built from is newer', () => {
    const sources = [
      'core/src/a.ts',
      'picture/src/a.ts',
      'formats/src/a.ts',
      'contract/src/a.ts',
      'web/src/deep/a.ts',
      'web/index.html',
    ];
    for (const source of sources) write(`packages/${source}`, 1000);
    write('package-lock.json', 1000);
    expect(isBuilt(root)).toBe(false);
    write('packages/web/dist/index.html', 2000);
    expect(isBuilt(root)).toBe(true);
    // What is built, what is installed and what is tested are not what it is built from.
    write('packages/web/dist/assets/a.js', 3000);
    write('packages/web/node_modules/a.js', 3000);
    write('packages/core/test/a.test.ts', 3000);
    write('packages/server/src/a.ts', 3000);
    expect(isBuilt(root)).toBe(true);
    for (const source of [...sources.map((s) => `packages/${s}`), 'package-lock.json']) {
      write(source, 3000);
      expect([source, isBuilt(root)]).toEqual([source, false]);
      write(source, 1000);
    }
  });

  test('runs on Node 20 and later', () => {
    expect(['18.20.1', '20.0.0', '22.1.0', '100.0.0'].map(isFit)).toEqual([false, true, true, true]);
  });

  test('names the packages of the programs that are on no folder of the path', () => {
    const has = (path: string): boolean => ['/usr/bin/midicsv', '/opt/bin/xmllint'].includes(path);
    expect(outsideMissing({ PATH: '/bin:/usr/bin' }, has)).toEqual([
      'abcmidi',
      'libxml2-utils',
      'poppler-utils',
    ]);
    expect(outsideMissing({ PATH: '/usr/bin:/opt/bin' }, has)).toEqual(['abcmidi', 'poppler-utils']);
  });

  test('finds a browser where it is said to be, else where Debian puts it', () => {
    const here =
      (...paths: string[]) =>
      (path: string) =>
        paths.includes(path);
    expect(browserIn({}, here())).toBeUndefined();
    expect(browserIn({ CHROMIUM_PATH: '/opt/c' }, here('/opt/c', '/usr/bin/chromium'))).toBe('/opt/c');
    expect(browserIn({ CHROMIUM_PATH: '/opt/gone' }, here('/usr/bin/chromium'))).toBe('/usr/bin/chromium');
    expect(browserIn({}, here('/usr/bin/chromium-browser'))).toBe('/usr/bin/chromium-browser');
  });
});

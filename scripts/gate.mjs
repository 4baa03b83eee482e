/** What the tests of a stage came to. */

/** The unit tests by Jest's report; a run that fails without a failed test, or leaves no report, counts as one. */
export function countUnit(report, code) {
  const passed = report?.numPassedTests ?? 0;
  const failed = (report?.numFailedTests ?? 0) + (report?.numRuntimeErrorTestSuites ?? 0);
  return { passed, failed: failed || (code === 0 && passed > 0 ? 0 : 1) };
}

/** The browser tests by Playwright's report: one that passed at a second try only has not passed. */
export function countBrowser(report, code) {
  const { expected = 0, unexpected = 0, flaky = 0, skipped = 0 } = report?.stats ?? {};
  const failed = unexpected + flaky + skipped;
  return { passed: expected, failed: failed || (code === 0 && expected > 0 ? 0 : 1) };
}

/** A stage that tests nothing by itself: it has failed, or not. */
const countPlain = (_, code) => ({ passed: 0, failed: code === 0 ? 0 : 1 });

/** The stages in their order: their commands, which go side by side, and what they may take on two cores otherwise idle, in s. */
export const STAGES = [
  {
    name: 'types and lint',
    budget: 75,
    commands: [
      ['npm', 'run', '--silent', 'check:page'],
      ['npm', 'run', '--silent', 'check:rest'],
    ],
    count: countPlain,
  },
  {
    name: 'unit tests',
    budget: 120,
    commands: [['npm', 'run', '--silent', 'unit']],
    report: 'jest.json',
    count: countUnit,
  },
  { name: 'build', budget: 30, commands: [['npm', 'run', '--silent', 'build']], count: countPlain },
  {
    name: 'browser tests',
    budget: 240,
    commands: [['npm', 'run', '--silent', 'e2e']],
    report: 'playwright.json',
    count: countBrowser,
  },
];

/**
 * Goes through the stages, says what each came to and took, and gives the exit code. `run` resolves to the exit code of a command,
 * `read` gives a report or null, `now` is the time in ms.
 */
export async function gate({ run, read, say, now, stages = STAGES }) {
  const total = { passed: 0, failed: 0 };
  const lines = [];
  for (const { name, budget, commands, report, count } of stages) {
    say(`Running the ${name}.`);
    const began = now();
    const codes = await Promise.all(commands.map(run));
    const took = Math.round((now() - began) / 1000);
    const { passed, failed } = count(report ? read(report) : null, codes.find((code) => code !== 0) ?? 0);
    total.passed += passed;
    total.failed += failed;
    const over = took > budget ? ', over it' : '';
    lines.push(`${name}: ${failed ? 'failed' : 'passed'} in ${took} s, budget ${budget} s${over}`);
  }
  for (const line of lines) say(line);
  say(`tests: ${total.passed} passed, ${total.failed} failed`);
  return total.failed ? 1 : 0;
}

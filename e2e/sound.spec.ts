import { join } from 'node:path';
import { type Page } from '@playwright/test';
import { type Bend, QUARTER, type Step } from '@crow-ladder/core/run';
import { build } from 'vite';
import { root } from './serve.ts';
import { expect, test } from './test.ts';

interface Asked {
  readonly midi: number;
  readonly arrive: string;
  readonly at: number;
}
/** Cents, ms, and how loud it was at most; as packages/web/test/measure.ts gives it. */
interface Measured {
  readonly notes: readonly { readonly cents: number; readonly clarity: number; readonly late: number }[];
  readonly clicks: readonly number[];
  readonly loudest: number;
  readonly together: number;
  readonly atOnce: number;
}

/** The measuring code and what it measures, as one script. */
async function script(): Promise<string> {
  const built = await build({
    root: join(root, 'e2e'),
    configFile: false,
    logLevel: 'warn',
    build: {
      write: false,
      lib: { entry: join(root, 'packages/web/test/measure.ts'), formats: ['iife'], name: 'measuring' },
    },
  });
  const [{ output }] = built as unknown as readonly [
    { readonly output: readonly { readonly code: string }[] },
  ];
  return output[0]!.code;
}
const measured = (
  page: Page,
  notes: readonly Asked[],
  clicks: readonly number[],
  voice: 'guitar' | 'bass',
): Promise<Measured> =>
  page.evaluate(
    ([notes, clicks, voice]) =>
      (window as unknown as { measure: (...all: unknown[]) => Promise<Measured> }).measure(
        notes,
        clicks,
        voice,
      ),
    [notes, clicks, voice] as const,
  );

test('what sounds is in tune and on time: notes of a guitar, a seven-string and a bass, slides, slurs and clicks', async ({
  page,
}) => {
  await page.goto('about:blank');
  await page.addScriptTag({ content: await script() });
  const picked = (pitches: readonly number[]): readonly Asked[] =>
    pitches.map((midi, i) => ({ midi, arrive: 'pick', at: 0.5 + i * 1.0007 }));
  const clicks = [0.5, 0.7003, 0.901, 1.5, 2.25];
  for (const [voice, pitches] of [
    ['guitar', [40, 43, 45, 52, 59, 64, 69, 76, 86]],
    ['guitar', [35, 38, 42, 47, 54]],
    ['bass', [28, 31, 33, 38, 43, 55]],
  ] as const) {
    const {
      notes,
      clicks: late,
      loudest,
      together,
      atOnce,
    } = await measured(page, picked(pitches), clicks, voice);
    notes.forEach((n, i) => {
      expect([pitches[i], n.clarity > 0.9, Math.abs(n.cents) < 2, n.cents]).toEqual([
        pitches[i],
        true,
        true,
        n.cents,
      ]);
      expect([pitches[i], Math.abs(n.late) < 5, n.late]).toEqual([pitches[i], true, n.late]);
    });
    for (const ms of late) expect([Math.abs(ms) < 1, ms]).toEqual([true, ms]);
    expect(loudest).toBeLessThan(1);
    expect(together).toBeLessThan(1);
    expect(together).toBeGreaterThan(0.3);
    // Nothing goes over full scale, whatever comes together.
    expect(atOnce).toBeLessThanOrEqual(1);
    expect(atOnce).toBeGreaterThan(0.8);
  }
  // A slide over four frets arrives in tune; what is hammered on and pulled off is there at once.
  const line: readonly Asked[] = (
    [
      [57, 'pick'],
      [61, 'slide'],
      [62, 'hammer'],
      [61, 'pull'],
      [69, 'tap'],
    ] as const
  ).map(([midi, arrive], i) => ({ midi, arrive, at: 0.5 + i }));
  for (const n of (await measured(page, line, [], 'guitar')).notes) {
    expect([Math.abs(n.cents) < 5, n.cents]).toEqual([true, n.cents]);
    expect([Math.abs(n.late) < 8, n.late]).toEqual([true, n.late]);
  }
});

/** Notes a beat apart that sound for half of it, on strings of a guitar. */
const line = (
  notes: readonly (readonly [string: number, fret: number, midi: number, how?: 'slide' | Bend])[],
): readonly Step[] =>
  notes.map(([string, fret, midi, how], i) => ({
    spot: { string, fret, midi, degree: 0 },
    finger: 1,
    hand: Math.max(1, fret),
    arrive: how === 'slide' ? 'slide' : 'pick',
    ...(typeof how === 'object' && { bend: how }),
    start: i * QUARTER,
    length: QUARTER / 2,
  }));

interface Live {
  readonly notes: readonly { readonly late: number; readonly cents: number }[];
  readonly arrived: readonly { readonly cents: number; readonly half: number }[];
  readonly stray: number;
  readonly after: number;
  readonly loudest: number;
  readonly step: number;
  readonly left: number;
}

test('recorded as it plays: notes on time and in tune, slides and bends there when they should be, nothing late after a stall, and no click at stop', async ({
  page,
  baseURL,
}) => {
  test.setTimeout(90_000);
  // A page of the same address that has nothing in it.
  await page.route('**/blank', (route) => route.fulfill({ contentType: 'text/html', body: '<p>Blank' }));
  await page.goto(`${baseURL}/blank`);
  await page.addScriptTag({ content: await script() });
  const once = { how: 'once', released: false } as const;
  const run = line([
    [6, 0, 40],
    [5, 2, 47],
    [3, 7, 62],
    [2, 8, 67, { by: 2, ...once }],
    [1, 12, 76],
    [1, 14, 78, 'slide'],
    [1, 8, 72, 'slide'],
    [1, 5, 69, { by: 1, how: 'slowly', released: false }],
  ]);
  const heard = await page.evaluate(
    (run) => (window as unknown as { live: (...all: unknown[]) => Promise<Live> }).live(run, 'guitar', 60),
    run,
  );
  if (process.env['HEARD']) console.log(JSON.stringify(heard, null, 1));
  for (const [i, { late, cents }] of heard.notes.entries())
    expect([i, Math.abs(late) < 1, Math.abs(cents) < 1, late, cents]).toEqual([i, true, true, late, cents]);
  expect(heard.arrived).toHaveLength(4);
  for (const { cents, half } of heard.arrived)
    expect([Math.abs(cents) < 5, Math.abs(half) < 5, cents, half]).toEqual([true, true, cents, half]);
  expect(heard.after).toBeGreaterThan(2);
  expect([heard.stray, heard.loudest < 1]).toEqual([0, true]);
  expect([heard.step < 0.02, heard.left < 0.001, heard.step, heard.left]).toEqual([
    true,
    true,
    heard.step,
    heard.left,
  ]);
});

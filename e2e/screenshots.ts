import { join } from 'node:path';
import { chromium, type Page } from '@playwright/test';
import { chromium as executablePath } from './playwright.config.ts';
import { application, root } from './serve.ts';

// One picture of each main view, from the demo data alone.
const { base, end } = await application();

/** Twelve bars of blues with three modes of one root. */
const on = (above: number) => [{ above, suffix: '7', degrees: ['1', '3', '5', 'b7'], bass: null }];
const CHORDS = encodeURIComponent(
  JSON.stringify({
    type: 'progression',
    beats: 4,
    bars: [0, 5, 0, 0, 5, 5, 0, 0, 7, 5, 0, 7].map(on),
    scales: {
      '0 7': { scale: 'mixolydian', above: 0 },
      '5 7': { scale: 'dorian', above: 0 },
      '7 7': { scale: 'natural-minor', above: 0 },
    },
  }),
);
/** A lick with a bend, from the fourth to the fifth and home. */
const LICK = encodeURIComponent(
  'phrase;Bb;minor-pentatonic;64-59-55-50-45-40;4;3.8_960b4oa 2.6_480 1.6_480 2.9_320 2.6_320u 3.8_320 3.6_480 4.8_480v40-5;bend opener;The cabin lick',
);
const WIDE = { width: 1280, height: 800 };
const TALL = { width: 420, height: 900 };
interface Shot {
  readonly name: string;
  readonly path: string;
  readonly size: { readonly width: number; readonly height: number };
  readonly theme?: 'light' | 'dark';
  readonly key?: string;
  readonly press?: readonly string[];
  /** Whether the stand-in plays it first, with two wrong notes and one left out. */
  readonly heard?: boolean;
}
const SHOTS: readonly Shot[] = [
  { name: 'workbench', path: '/', size: WIDE },
  {
    name: 'formula',
    path: '/new/formula?root=Bb&scale=major&at=6.6&layout=count.3&stage=position',
    size: WIDE,
  },
  {
    name: 'seam',
    path: '/new/ladder?root=Bb&scale=minor-pentatonic&at=6.6&layout=count.2&look=seam',
    size: WIDE,
  },
  {
    name: 'climb',
    path: '/new/ladder?root=Eb&scale=minor-pentatonic&at=6.11&layout=count.2&look=climbs&climb=diagonal&step=6',
    size: WIDE,
  },
  {
    name: 'plan',
    path: '/new/ladder?root=F%23&scale=dorian&at=6.2&layout=count.3&look=plan&plan=root.o3.one.0.0.all.1.0.change-slide-close-open.-1.100&step=9',
    size: { width: 1280, height: 1000 },
  },
  {
    name: 'move',
    path: '/new/move?root=F%23&scale=dorian&at=6.2&layout=count.3&move=key.5.whole',
    size: WIDE,
  },
  {
    name: 'move-tuning',
    path: '/new/move?root=Bb&scale=minor-pentatonic&at=6.6&layout=count.2&look=tuning&move=tuning.t:drop-d.notes',
    size: { width: 1280, height: 1100 },
    theme: 'dark',
  },
  {
    name: 'compare',
    path: '/new/compare?root=C%23&scale=natural-minor&at=6.9&layout=count.3&over=scale;0;dorian&look=parallel',
    size: WIDE,
  },
  {
    name: 'chords',
    path:
      '/new/chords?root=Eb&scale=mixolydian&at=5.6&layout=inPosition.index.best&do=changes&at-chord=1&chords=' +
      CHORDS,
    size: { width: 1280, height: 1000 },
  },
  {
    name: 'phrases',
    path: `/new/phrases?root=Bb&scale=minor-pentatonic&at=6.6&layout=count.2&phrase=${LICK}&played=place&pick=2`,
    size: { width: 1280, height: 1350 },
  },
  {
    name: 'practice',
    path: '/new/practice?root=Bb&scale=dorian&at=7.11&layout=count.3&strings=B1.E2.A2.D3.G3.B3.E4&drill=groups.3.twice&beat=4&tempo=84',
    size: { width: 1280, height: 1350 },
  },
  {
    name: 'hearing',
    path: '/new/practice?root=Eb&scale=minor-pentatonic&at=6.11&layout=count.2&tempo=160&loop=no',
    size: WIDE,
    theme: 'dark',
    heard: true,
  },
  { name: 'today', path: '/today', size: WIDE },
  { name: 'log', path: '/log', size: { width: 1280, height: 1350 } },
  { name: 'charts', path: '/charts', size: WIDE },
  { name: 'instrument', path: '/instruments/new', size: WIDE },
  { name: 'settings', path: '/settings', size: WIDE },
  {
    name: 'upright-stage',
    path: '/new?root=Bb&scale=minor-pentatonic&at=5.1&layout=count.2',
    size: TALL,
    theme: 'dark',
  },
  {
    name: 'upright-practice',
    path: '/new/practice?root=F%23&scale=natural-minor&at=4.2&layout=count.3&strings=E1.A1.D2.G2&neck=24.864.0.4.right&called=bass&drill=groups.3.twice&beat=3&count=no',
    size: TALL,
    theme: 'dark',
    press: ['Practice', 'Play'],
  },
];

/** Has the stand-in play what is practised, to its end. */
async function hear(page: Page): Promise<void> {
  await page.getByRole('button', { name: /^More: / }).click();
  await page.getByLabel('What the page listens to').selectOption('standIn');
  await page.getByLabel('Wrong notes a round').fill('2');
  await page.getByLabel('Notes left out a round').fill('1');
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Play', exact: true }).click();
  await page.getByText(/notes right/).waitFor();
}

const browser = await chromium.launch({ executablePath, args: ['--no-sandbox'] });
for (const { name, path, size, theme = 'light', key, press = [], heard = false } of SHOTS) {
  const page = await browser.newPage({ viewport: size, colorScheme: theme });
  await page.goto(base + path);
  await page.getByRole('heading').first().waitFor();
  await page.waitForLoadState('networkidle');
  if (key) {
    await page.keyboard.press(key);
    await page.getByRole('dialog').waitFor();
  }
  if (heard) await hear(page);
  for (const name of press) await page.getByRole('button', { name, exact: true }).click();
  await page.getByText('Getting the sound…').waitFor({ state: 'hidden' });
  // Notes on their way come to rest.
  await page.waitForTimeout(600);
  await page.screenshot({ path: join(root, 'docs/screenshots', `${name}.png`) });
  await page.close();
  console.log(name);
}
await browser.close();
await end();

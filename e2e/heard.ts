import { DEFAULT_INSTRUMENT, frontOf, neckOf, note, parseTuning, scaleById } from '@crow-ladder/core';
import { layOut } from '@crow-ladder/core/layouts';
import {
  FAULTLESS,
  type Faults,
  type PlayedNote,
  standInPlays,
  standInSounds,
} from '@crow-ladder/core/listening';
import { articulate, fingers, inTime, scheduleOf } from '@crow-ladder/core/run';
import { type Strung } from '@crow-ladder/core/sound';
import { type Page } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { browserHearing, soundFile } from './microphone.ts';
import { open, panel } from './player.ts';
import { quietly, takenAway } from './quiet.ts';
import { application } from './serve.ts';

// What the page hears of files that its browser plays as a microphone: the drill of Practice, up and down a position, played by the
// stand-in with its faults, held note by note against what it played. And how long after a note its sign stands on the page. HEARD is a
// part of a condition's name to be measured alone.
const RATE = 48_000;
const only = process.env['HEARD'] ?? '';
/** From the opening of the microphone to Play, in ms; from there to where the first note is asked for it takes a count-in, and about this, in seconds. */
const OPENED_MS = 1500;
const SOON = 0.2;

const GUITARS = [
  { name: 'guitar', strings: 'E2.A2.D3.G3.B3.E4', string: 6, strung: { voice: 'guitar', plain: 3 } },
  { name: 'seven-string', strings: 'B1.E2.A2.D3.G3.B3.E4', string: 6, strung: { voice: 'guitar', plain: 3 } },
  { name: 'bass', strings: 'E1.A1.D2.G2', string: 4, strung: { voice: 'bass', plain: 0 } },
] as const satisfies readonly {
  readonly name: string;
  readonly strings: string;
  readonly string: number;
  readonly strung: Strung;
}[];
const CONDITIONS: readonly {
  readonly name: string;
  readonly tempo: number;
  readonly faults: Partial<Faults>;
}[] = [
  { name: 'clean at 60', tempo: 60, faults: { jitter: 6 } },
  { name: 'clean at 120', tempo: 120, faults: { jitter: 6 } },
  { name: 'clean at 180', tempo: 180, faults: { jitter: 6 } },
  { name: 'noise 35 dB below', tempo: 120, faults: { jitter: 6, noise: -43 } },
  { name: 'ringing 0.3 s', tempo: 120, faults: { jitter: 6, ringing: 300 } },
  { name: 'detuned by 20 cents', tempo: 120, faults: { jitter: 6, detuned: 20 } },
  { name: 'mistakes', tempo: 120, faults: { jitter: 8, wrong: 2, missed: 2, doubled: 2 } },
];
const FRET = 5;
const KEY = { root: note('A'), scale: scaleById('minor-pentatonic')! };

/** The drill's notes on a guitar. */
function drillOn({ strings, string }: (typeof GUITARS)[number]) {
  const tuning = parseTuning(strings.replaceAll('.', ' '));
  if (!tuning.ok) throw new Error(tuning.error.message);
  const neck = neckOf({ ...DEFAULT_INSTRUMENT, tuning: tuning.value.tuning });
  const all = layOut(neck, KEY, { kind: 'count', counts: [2] });
  if (!all.ok) throw new Error(all.error.message);
  const up = frontOf(all.value, null, { string, fret: FRET })!.position.spots;
  const { steps } = fingers(neck, [...up, ...up.slice(0, -1).reverse()], {
    school: 'onePerFret',
    spanMm: 110,
  });
  return inTime(articulate(steps));
}

/** Watches when something loud begins first at the microphone, and when the sign of each note comes first, in ms of the page. */
const WATCHING = `
  const { getUserMedia } = MediaDevices.prototype;
  window.plucked = null;
  window.told = {};
  MediaDevices.prototype.getUserMedia = async function (...asked) {
    const stream = await getUserMedia.apply(this, asked);
    window.openedAt = performance.now();
    const ctx = new AudioContext();
    const analyser = new AnalyserNode(ctx, { fftSize: 256 });
    new MediaStreamAudioSourceNode(ctx, { mediaStream: stream }).connect(analyser);
    const samples = new Float32Array(256);
    const timer = setInterval(() => {
      analyser.getFloatTimeDomainData(samples);
      if (Math.max(...samples.map(Math.abs)) <= 0.1) return;
      window.plucked = performance.now();
      clearInterval(timer);
    }, 4);
    new MutationObserver(() => {
      for (const sign of document.querySelectorAll('[data-heard]:not([data-heard=extra])'))
        window.told[sign.dataset.note] ??= performance.now();
    }).observe(document.documentElement, { childList: true, subtree: true });
    return stream;
  };
`;

interface Heard {
  readonly signs: readonly string[];
  readonly said: string;
  /** When something loud began first at the microphone, and when the sign of each note came, from 0, in ms of the page. */
  readonly plucked: number;
  readonly told: readonly (number | undefined)[];
  /** What part of the processors was taken away while it listened. */
  readonly stolen: number;
}
/**
 * How long after each note of a file its sign came, in ms: notes begin as in the file, from the first one that the microphone shows on.
 * What the microphone drops meanwhile is waited for as well.
 */
function answersTo({ plucked, told }: Heard, played: readonly PlayedNote[]): readonly number[] {
  const from = plucked - 1000 * played[0]!.at;
  return played.flatMap(({ at, step }) => {
    const came = step === null ? undefined : told[step];
    return came === undefined ? [] : [came - from - 1000 * at];
  });
}
/** Lets the page hear a file. */
async function hearing(base: string, file: string, address: string): Promise<Heard> {
  const browser = await browserHearing(file);
  try {
    const page: Page = await browser.newPage({ baseURL: base, viewport: { width: 1280, height: 800 } });
    await page.addInitScript(WATCHING);
    await open(page, address);
    const practice = panel(page, 'Practice');
    await practice.locator('.lamp').first().waitFor({ state: 'attached' });
    // The first time all sounds are made: from then on it begins when it is asked to.
    await practice.getByRole('button', { name: 'Play', exact: true }).click();
    await page.waitForTimeout(2000);
    await practice.getByRole('button', { name: 'Stop', exact: true }).click();
    await practice.getByRole('button', { name: /^More: / }).click();
    await page.getByLabel('What the page listens to').selectOption({ label: 'my guitar, by a microphone' });
    await practice.getByRole('button', { name: /hears the microphone/ }).waitFor();
    await page.keyboard.press('Escape');
    await page.waitForFunction(
      (ms) => performance.now() - (window as unknown as { openedAt: number }).openedAt > ms,
      OPENED_MS,
    );
    const taken = takenAway();
    await practice.getByRole('button', { name: 'Play', exact: true }).click();
    const status = practice.getByRole('status').filter({ hasText: 'notes right' });
    await status.waitFor({ timeout: 60_000 });
    const stolen = taken();
    const signs = await practice
      .locator('[data-heard]:not([data-heard=extra])')
      .evaluateAll((all) => all.map((it) => it.getAttribute('data-heard')!));
    const [plucked, told] = (await page.evaluate('[window.plucked, window.told]')) as [
      number,
      Record<string, number>,
    ];
    return {
      signs,
      said: (await status.textContent())!,
      plucked,
      told: signs.map((_, i) => told[i + 1]),
      stolen,
    };
  } finally {
    await browser.close();
  }
}

/** The value below which so much of some numbers lies; nothing of none. */
const quantile = (of: readonly number[], part: number): string =>
  [...of].sort((a, b) => a - b)[Math.floor(part * (of.length - 1))]?.toFixed(0) ?? '';

const { base, end } = await application();
const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-heard-'));
const all = { notes: 0, heardAs: 0, extra: 0 };
const answers: number[] = [];
console.log(
  'condition, instrument'.padEnd(38) + 'notes  as played  too many  sign after, ms (95 %)  taken away',
);
for (const { name, tempo, faults } of CONDITIONS.filter((it) => it.name.includes(only)))
  for (const guitar of GUITARS) {
    const it = { ...FAULTLESS, ...faults };
    const run = drillOn(guitar);
    const { notes, end: ends } = scheduleOf(run, {
      tempo,
      swing: 50,
      beatsPerBar: 4,
      countIn: 0,
      endsOn: 960,
    });
    const first = OPENED_MS / 1000 + (4 * 60) / tempo + SOON;
    const played = standInPlays(run, notes, guitar.strung, it, 7).map((p) => ({
      ...p,
      at: p.at + first,
      until: p.until + first,
    }));
    const file = soundFile(folder, standInSounds(played, it, first + ends + 3, RATE, 7), RATE);
    const address = `/new/practice?root=A&scale=minor-pentatonic&at=${guitar.string}.${FRET}&layout=count.2&strings=${guitar.strings}&tempo=${tempo}&loop=no`;
    const heard = await quietly(() => hearing(base, file, address));
    const kinds = new Map(played.map((p) => [p.step, p.kind]));
    const as = heard.signs.filter((sign, step) => {
      const kind = kinds.get(step);
      if (kind === undefined) return sign === 'missed';
      return kind === 'wrong' ? sign === 'wrong' : sign !== 'wrong' && sign !== 'missed';
    }).length;
    const extra = Number(/(\d+) too many/.exec(heard.said)?.[1] ?? 0) - (faults.doubled ?? 0);
    all.notes += run.length;
    all.heardAs += as;
    all.extra += Math.max(0, extra);
    const after = answersTo(heard, played);
    if (name.startsWith('clean')) answers.push(...after);
    console.log(
      `${name}, ${guitar.name}`.padEnd(38) +
        `${run.length}`.padStart(5) +
        `${as}`.padStart(11) +
        `${extra}`.padStart(10) +
        quantile(after, 0.5).padStart(9) +
        quantile(after, 0.95).padStart(6) +
        `${(100 * heard.stolen).toFixed(1)} %`.padStart(20),
    );
  }
const percent = (n: number): string => `${((100 * n) / all.notes).toFixed(1)} %`;
console.log(
  `all: ${all.notes} notes, ${percent(all.heardAs)} told as they were played, ${percent(all.extra)} too many`,
);
if (answers.length)
  console.log(
    `a sign stands ${quantile(answers, 0.5)} ms after its note (95 %: ${quantile(answers, 0.95)} ms; ${answers.length} notes)`,
  );
rmSync(folder, { recursive: true });
await end();

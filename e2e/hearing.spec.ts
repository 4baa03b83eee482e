import { FAULTLESS, plainNote, standInSounds } from '@crow-ladder/core/listening';
import { type Page } from '@playwright/test';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { browserHearing, soundFile } from './microphone.ts';
import { clean, fromMenu, noRounds, open, panel } from './player.ts';
import { expect, test } from './test.ts';

const DRILL = '/new/practice?root=A&scale=minor-pentatonic&at=6.5&layout=count.2&tempo=160&loop=no';
// The log is each test's own.
test.afterEach(({ request }) => noRounds(request));
const practice = (page: Page) => panel(page, 'Practice');

/** Chooses what the page listens to, with faults of the stand-in. */
async function hears(page: Page, what: string, faults: Readonly<Record<string, number>> = {}): Promise<void> {
  await practice(page)
    .getByRole('button', { name: /^More: / })
    .click();
  const chosen = page.getByRole('dialog', { name: 'More' });
  await chosen.getByLabel('What the page listens to').selectOption({ label: what });
  for (const [name, value] of Object.entries(faults)) await chosen.getByLabel(name).fill(String(value));
}
const play = (page: Page) => practice(page).getByRole('button', { name: 'Play', exact: true });

test('the stand-in plays a drill with two wrong notes and one too many, and just those are found', async ({
  page,
}) => {
  await open(page, DRILL);
  await hears(page, 'a stand-in, to try it', { 'Wrong notes a round': 2, 'Notes struck twice a round': 1 });
  await clean(page, 'what the page listens to');
  await page.keyboard.press('Escape');
  await play(page).click();
  await expect(practice(page).getByText('Listening', { exact: true })).toBeVisible();
  const said = practice(page)
    .getByRole('status')
    .filter({ hasText: /notes right/ });
  await expect(said).toContainText('21 of 23 notes right: 2 wrong notes, 1 too many.', { timeout: 30_000 });
  expect((await said.textContent())!.match(/instead/g)).toHaveLength(2);
  expect((await said.textContent())!.match(/too many after note/g)).toHaveLength(1);
  // Signs under the music, and names on the neck, say the same.
  await expect(practice(page).locator('[data-heard="wrong"]')).toHaveCount(2);
  await expect(practice(page).locator('[data-heard="extra"]')).toHaveCount(1);
  await expect(practice(page).getByText('In the log: not yet clean at 160.')).toBeVisible();
  await clean(page, 'a round that was heard');
});

test('the ladder of tempos goes up by what was heard', async ({ page }) => {
  await open(page, `${DRILL.replace('&loop=no', '')}&climb=170.5.1`);
  await hears(page, 'a stand-in, to try it');
  await page.keyboard.press('Escape');
  await play(page).click();
  await expect(practice(page).getByText('In the log: clean at 160.')).toBeVisible({ timeout: 30_000 });
  await expect(practice(page).getByText('In the log: clean at 165.')).toBeVisible({ timeout: 30_000 });
  await practice(page).getByRole('button', { name: 'Stop' }).click();
});

test('a microphone that is refused, or goes, is said with what to do', async ({ page, context }) => {
  await open(page, DRILL);
  await hears(page, 'my guitar, by a microphone');
  const chosen = page.getByRole('dialog', { name: 'More' });
  await expect(chosen.getByRole('alert')).toContainText(
    /does not let this page use the microphone|No microphone was found/,
  );
  await page.keyboard.press('Escape');
  // Practice goes on as it does without being heard.
  await play(page).click();
  await expect(practice(page).getByRole('button', { name: 'Stop' })).toBeVisible();
  await expect(practice(page).getByText('Listening', { exact: true })).toBeHidden();
  await context.clearPermissions();
});

/** A minor pentatonic in its box at fret 5, up and down. */
const BOX = [45, 48, 50, 52, 55, 57, 60, 62, 64, 67, 69, 72];
const UP_AND_DOWN = [...BOX, ...BOX.slice(0, -1).reverse()];
const RATE = 48_000;

/** What a guitarist plays of it in eighths at 160, as a file of 16-bit samples: its first note after so many seconds, one note wrong. */
function recording(folder: string, after: number, wrong: number): string {
  const eighth = 60 / 160 / 2;
  const played = UP_AND_DOWN.map((asked, step) => {
    const midi = step === wrong ? asked + 1 : asked;
    const at = after + step * eighth;
    const sounds = {
      midi,
      voice: 'guitar',
      fret: 5,
      wound: midi < 55,
      arrive: 'pick',
      take: step % 3,
    } as const;
    return plainNote(sounds, at, at + eighth);
  });
  const samples = standInSounds(played, FAULTLESS, after + UP_AND_DOWN.length * eighth + 4, RATE, 1);
  return soundFile(folder, samples, RATE);
}

test('a guitar at the microphone is heard, one wrong note among its notes; a microphone that goes is told', async ({
  library,
}) => {
  const folder = mkdtempSync(join(tmpdir(), 'guitar-'));
  // The file begins when the microphone is opened; a count-in of four beats and the way to Play come before the first note.
  const file = recording(folder, 3.4, 7);
  const browser = await browserHearing(file);
  try {
    const page = await browser.newPage({ baseURL: library.base, viewport: { width: 1280, height: 800 } });
    await page.addInitScript(`
      const { getUserMedia } = MediaDevices.prototype;
      MediaDevices.prototype.getUserMedia = async function (...asked) {
        const stream = await getUserMedia.apply(this, asked);
        window.opened = { at: performance.now(), track: stream.getAudioTracks()[0] };
        return stream;
      };
    `);
    // A browser that is short of processor drops samples of a microphone: then notes are missed, and at worst it is played once more.
    await expect(async () => {
      await open(page, DRILL);
      await expect(practice(page).locator('.lamp').first()).toBeAttached();
      // The sounds are there: later it plays at once.
      await play(page).click();
      await practice(page).getByRole('button', { name: 'Stop' }).click();
      await expect(play(page)).toBeVisible();
      await hears(page, 'my guitar, by a microphone');
      await page.keyboard.press('Escape');
      await expect(practice(page).getByRole('button', { name: /hears the microphone/ })).toBeVisible();
      await page.waitForFunction(
        () => performance.now() - (window as unknown as { opened: { at: number } }).opened.at > 1500,
      );
      await play(page).click();
      const said = practice(page)
        .getByRole('status')
        .filter({ hasText: /notes right/ });
      await expect(said).toContainText(/(19|2[0-2]) of 23 notes right/, { timeout: 20_000 });
      await expect(said).toContainText('Note 8, D: D♯ instead');
    }).toPass({ timeout: 100_000 });
    await page.evaluate('window.opened.track.dispatchEvent(new Event("ended"))');
    await practice(page)
      .getByRole('button', { name: /hears nothing/ })
      .click();
    await expect(page.getByRole('dialog', { name: 'More' }).getByRole('alert')).toContainText('went away');
  } finally {
    await browser.close();
    rmSync(folder, { recursive: true });
  }
});

test('strings are tuned to D A D G A D, one after the other', async ({ page }) => {
  await open(page, '/new?root=D&scale=dorian&at=6.0&layout=count.3&strings=D2.A2.D3.G3.A3.D4');
  await fromMenu(page, 'Tune the guitar');
  const tuner = page.getByRole('dialog', { name: 'Tune the guitar' });
  await expect(tuner).toContainText('string 6 down 2 half steps, E2 to D2');
  await tuner.getByLabel('What the page listens to').selectOption({ label: 'a stand-in, to try it' });
  const pluck = (string: number) =>
    tuner.getByRole('button', { name: `Have the stand-in pluck string ${string}` }).click();
  await pluck(1);
  await expect(tuner.getByRole('status')).toContainText('String 1, D4: 25 cents flat');
  await pluck(6);
  await expect(tuner.getByRole('listitem').last()).toContainText('6 cents sharp: loosen it');
  // It comes nearer by each stroke, until it is in tune.
  await pluck(6);
  await expect(tuner.getByRole('status')).toHaveText('String 6, D2: in tune.');
  await clean(page, 'the tuner');
});

test('the tuner hears the input and the channel that are chosen', async ({ page }) => {
  // An interface with its guitar on the second channel: string 5, ten cents sharp.
  await page.addInitScript(`
    MediaDevices.prototype.getUserMedia = async () => {
      const ctx = new AudioContext();
      const string = new OscillatorNode(ctx, { type: 'sawtooth', frequency: 110 * 2 ** (10 / 1200) });
      const both = new ChannelMergerNode(ctx, { numberOfInputs: 2 });
      const out = new MediaStreamAudioDestinationNode(ctx);
      string.connect(both, 0, 1);
      both.connect(out);
      string.start();
      return out.stream;
    };
    MediaDevices.prototype.enumerateDevices = async () => [
      { kind: 'audioinput', deviceId: 'two', label: 'Two inputs' },
    ];
  `);
  await open(page, '/new?root=A&scale=dorian&at=6.5&layout=count.3');
  await fromMenu(page, 'Tune the guitar');
  const tuner = page.getByRole('dialog', { name: 'Tune the guitar' });
  await tuner.getByLabel('What the page listens to').selectOption({ label: 'my guitar, by a microphone' });
  await expect(tuner.getByText('Listening: pluck a string.')).toBeVisible();
  await expect(tuner.getByLabel('Input')).toBeVisible();
  await tuner.getByLabel('Channel').selectOption({ label: 'the second' });
  await expect(tuner.getByText('String 5, A2: 10 cents sharp: loosen it.')).toBeVisible();
  await clean(page, 'the tuner with its inputs');
});

test('the next note comes when this one was right', async ({ page }) => {
  await open(page, DRILL);
  await hears(page, 'a stand-in, to try it', { 'Wrong notes a round': 2 });
  await page
    .getByRole('dialog', { name: 'More' })
    .getByRole('switch', { name: /^Wait for me/ })
    .click();
  await page.keyboard.press('Escape');
  await play(page).click();
  await expect(practice(page).getByText('That was', { exact: false })).toBeVisible({ timeout: 30_000 });
  await clean(page, 'a note that is waited for');
  await expect(practice(page).getByRole('status').filter({ hasText: 'All 23 notes' })).toHaveText(
    'All 23 notes came, 2 wrong ones on the way.',
    { timeout: 60_000 },
  );
  await expect(play(page)).toBeVisible();
});

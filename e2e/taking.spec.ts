import { type Locator, type Page } from '@playwright/test';
import { choose, clean, open, panel } from './player.ts';
import { expect, test } from './test.ts';

const CHART = 'root=A&scale=minor-pentatonic&at=6.5&layout=count.2';
const listensTo = (page: Page, label: string) =>
  page.getByLabel('What the page listens to').selectOption({ label });

/** A new phrase that is begun with something. */
async function begun(page: Page, label: string): Promise<Locator> {
  await panel(page, 'Phrases').getByRole('button', { name: 'New phrase' }).click();
  const making = page.getByRole('dialog', { name: 'New phrase' });
  await making.getByLabel('Begin with').selectOption({ label });
  return making;
}

test('a lick is taken down to the metronome, lies under the hand, and is put right on the neck', async ({
  page,
}) => {
  await open(page, `/new/phrases?${CHART}&tempo=160`);
  const phrases = panel(page, 'Phrases');
  const making = await begun(page, 'what I play, as it is heard');
  await expect(making.getByRole('button', { name: 'Listen', exact: true })).toBeDisabled();
  await listensTo(page, 'a stand-in, to try it');
  await making.getByLabel('Time').selectOption({ label: 'to the metronome' });
  await making.getByRole('button', { name: 'Listen', exact: true }).click();
  const said = making.getByRole('status').filter({ hasText: 'a minute' });
  await expect(said).toHaveText('12 notes, 160 a minute: 1:8 ♭3 4 5 ♭7 1 ♭3 4 5 ♭7 1 ♭3', {
    timeout: 30_000,
  });
  await clean(page, 'a line that is taken down');
  await making.getByRole('button', { name: 'Take it down' }).click();
  await expect(making).toBeHidden();
  await expect(phrases).toContainText('Note 12 of 12: string 1 fret 8, eighth. Bar 2, beat 2.');
  // The last note was meant a scale step lower.
  await phrases.getByRole('application').focus();
  await page.keyboard.press('ArrowDown');
  await expect(phrases).toContainText('Note 12 of 12: string 1 fret 5');
});

test('what is played freely is written in its own time; nothing is heard before it is asked for', async ({
  page,
}) => {
  await open(page, '/new/phrases?root=E&scale=dorian&at=4.7&layout=count.3&strings=E1.A1.D2.G2&length=864');
  const making = await begun(page, 'what I play, as it is heard');
  await listensTo(page, 'a stand-in, to try it');
  await expect(making.getByRole('button', { name: 'Take it down' })).toBeDisabled();
  await making.getByRole('button', { name: 'Listen', exact: true }).click();
  await expect(making.getByRole('status').filter({ hasText: 'a minute' })).toHaveText(
    /^12 notes, about \d+ a minute: .*:8/,
    { timeout: 30_000 },
  );
  await making.getByRole('button', { name: 'That was it' }).click();
  await expect(making.getByText('Listening')).toBeHidden();
});

test('notes that are played are ticked and named, with the position that they lie in', async ({ page }) => {
  await open(page, `/new/compare?${CHART}&look=notes`);
  const compare = panel(page, 'Compare');
  await compare.getByRole('button', { name: 'Hear me' }).click();
  await listensTo(page, 'a stand-in, to try it');
  await page.getByRole('button', { name: 'Listen', exact: true }).click();
  await expect(compare).toContainText('all of them lie in position 1, frets 5 to 8', { timeout: 30_000 });
  await page.keyboard.press('Escape');
  await expect(compare.getByRole('status').first()).toHaveText('A, C, D, E and G:');
});

test('a phrase is heard, where it was made and elsewhere: a wrong note, and a bend that falls short', async ({
  page,
}) => {
  await open(page, `/new/phrases?${CHART}&tempo=160`);
  const phrases = panel(page, 'Phrases');
  const making = await begun(page, 'a line of degrees');
  await making.getByRole('textbox', { name: 'Degrees' }).fill("5 b7 1' b3 4:4 b3 1 b7");
  await making.getByRole('button', { name: 'Take it' }).click();
  await phrases.getByRole('application').focus();
  for (const key of ['ArrowLeft', 'ArrowLeft', 'ArrowLeft', 'b', 'Home']) await page.keyboard.press(key);
  await phrases.getByRole('button', { name: /^Tempo/ }).click();
  await listensTo(page, 'a stand-in, to try it');
  const tempo = page.getByRole('dialog', { name: 'Tempo' });
  await tempo.getByLabel('Wrong notes a round').fill('1');
  await tempo.getByText('More of its faults').click();
  await tempo.getByLabel('Bends short by, cents').fill('40');
  await page.keyboard.press('Escape');
  await phrases.getByRole('button', { name: 'Play', exact: true }).click();
  const said = phrases.getByRole('status').filter({ hasText: 'notes right' });
  await expect(said).toContainText('7 of 8 notes right: 1 wrong note.', { timeout: 30_000 });
  await expect(said).toContainText('The bend of note 5, D, is 40 cents flat.');
  await expect(phrases.locator('[data-heard="wrong"]')).toHaveCount(1);
  await choose(page, 'Where', /^turned/);
  await expect(phrases.getByRole('button', { name: 'Play', exact: true })).toBeEnabled();
  await expect(said).toBeHidden();
});

test.describe('a loudspeaker on the desk', () => {
  test.use({ altered: true });
  test('the delay of an input is measured by clicks that come back, shown, kept and set', async ({
    page,
  }) => {
    // What the page sounds comes back to its microphone, as across a desk.
    await page.addInitScript(`
      let microphone = null;
      const { connect } = AudioNode.prototype;
      AudioNode.prototype.connect = function (to, ...more) {
        if (to instanceof AudioDestinationNode) {
          if (!microphone) {
            microphone = new MediaStreamAudioDestinationNode(this.context);
            window.air = new DelayNode(this.context, { delayTime: 0.1 });
            connect.call(window.air, microphone);
          }
          connect.call(this, window.air);
        }
        return connect.call(this, to, ...more);
      };
      MediaDevices.prototype.getUserMedia = async () =>
        (microphone ?? new MediaStreamAudioDestinationNode(new AudioContext())).stream;
    `);
    await open(page, `/new/practice?${CHART}`);
    const practice = panel(page, 'Practice');
    // The loudspeaker is there once something has sounded.
    await practice.getByRole('button', { name: 'Play', exact: true }).click();
    await page.waitForFunction(() => 'air' in window);
    await practice.getByRole('button', { name: 'Stop', exact: true }).click();
    await practice.getByRole('button', { name: /^More: / }).click();
    await listensTo(page, 'my guitar, by a microphone');
    const more = page.getByRole('dialog', { name: 'More' });
    const delay = more.getByLabel('Delay of this input, ms');
    await expect(delay).toHaveValue('');
    const said = more.getByRole('status').filter({ hasText: 'clicks' });
    // A busy browser drops sound: then it is measured again, as the page says.
    await expect(async () => {
      await more.getByRole('button', { name: 'Measure the delay' }).click();
      await expect(said).toHaveText(/^The clicks came back after (\d+) ms, within \d+ ms\.$/, {
        timeout: 12_000,
      });
    }).toPass({ timeout: 90_000 });
    const ms = Number(/(\d+) ms,/.exec((await said.textContent())!)![1]);
    expect(ms).toBeGreaterThan(99);
    expect(ms).toBeLessThan(250);
    await expect(delay).toHaveValue(String(ms));
    await clean(page, 'a delay that was measured');
    // It is this browser's: there after a reload, until it is set otherwise.
    await page.reload();
    await practice.getByRole('button', { name: /^More: / }).click();
    await listensTo(page, 'my guitar, by a microphone');
    await expect(delay).toHaveValue(String(ms));
    await delay.fill('700');
    await expect(more.getByText('A whole number from 0 to 500.')).toBeVisible();
    await delay.fill('');
    await page.keyboard.press('Escape');
    await practice.getByRole('button', { name: /^More: / }).click();
    await expect(delay).toHaveValue('');
  });
});

test.describe('a plain address in the room', () => {
  test.use({ altered: true });
  test('has no microphone, and it is said how to get one; the stand-in plays there', async ({ page }) => {
    // Browsers give none there.
    await page.addInitScript(`Object.defineProperty(navigator, 'mediaDevices', { value: undefined });`);
    await open(page, `/new/compare?${CHART}&look=notes`);
    await panel(page, 'Compare').getByRole('button', { name: 'Hear me' }).click();
    await listensTo(page, 'my guitar, by a microphone');
    const chosen = page.getByRole('dialog', { name: 'Hear me' });
    await expect(chosen.getByRole('alert')).toContainText('an address that begins with https');
    await expect(chosen.getByRole('button', { name: 'Listen' })).toBeDisabled();
    await listensTo(page, 'a stand-in, to try it');
    await expect(chosen.getByRole('alert')).toBeHidden();
    await expect(chosen.getByRole('button', { name: 'Listen' })).toBeEnabled();
  });
});

test.describe('a tab in the background', () => {
  test.use({ altered: true });
  test('goes on listening: a round that is played while another tab is looked at is heard whole', async ({
    page,
  }) => {
    // What browsers do to a tab that nobody looks at: no frames, and timers once a second.
    await page.addInitScript(`
      let away = false;
      const frames = [];
      const { requestAnimationFrame, setInterval, setTimeout } = window;
      window.requestAnimationFrame = (f) => (away ? frames.push(f) : requestAnimationFrame.call(window, f));
      window.setTimeout = (f, ms, ...more) => setTimeout.call(window, f, away ? Math.max(ms, 1000) : ms, ...more);
      window.setInterval = (f, ms, ...more) => {
        let last = 0;
        return setInterval.call(window, () => {
          if (away && performance.now() - last < 1000) return;
          last = performance.now();
          f(...more);
        }, ms);
      };
      window.look = (to) => {
        away = !to;
        const is = { hidden: away, visibilityState: away ? 'hidden' : 'visible' };
        for (const [name, value] of Object.entries(is))
          Object.defineProperty(document, name, { configurable: true, get: () => value });
        document.dispatchEvent(new Event('visibilitychange'));
        if (to) for (const f of frames.splice(0)) requestAnimationFrame.call(window, f);
      };
    `);
    await open(page, `/new/practice?${CHART}&tempo=160&loop=no`);
    const practice = panel(page, 'Practice');
    await practice.getByRole('button', { name: /^More: / }).click();
    await listensTo(page, 'a stand-in, to try it');
    await page.keyboard.press('Escape');
    await practice.getByRole('button', { name: 'Play', exact: true }).click();
    await expect(practice.getByText('Listening', { exact: true })).toBeVisible();
    await page.evaluate('look(false)');
    await expect(practice.getByRole('status').filter({ hasText: 'notes right' })).toContainText(
      '23 of 23 notes right.',
      { timeout: 30_000 },
    );
    await page.evaluate('look(true)');
    await expect(practice.locator('[data-heard]')).toHaveCount(23);
  });
});

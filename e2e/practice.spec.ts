import { type Page } from '@playwright/test';
import { choose, neck, open, panel, part, says, set, setTempo, task, turnSheet } from './player.ts';
import { expect, test } from './test.ts';

const A_DORIAN = '/new/practice?root=A&scale=dorian&at=6.5&layout=count.3';
const practice = (page: Page) => panel(page, 'Practice');
const play = (page: Page) => practice(page).getByRole('button', { name: /^(Play|Stop)$/ });
/** The number of the note that is looked at or heard. */
const note = async (page: Page): Promise<number> =>
  Number(
    /^Note (\d+) of/.exec(
      (await practice(page)
        .getByText(/^Note \d+ of/)
        .textContent()) ?? '',
    )?.[1],
  );
/** What was handed to the audio clock, as it was: every source with its time, in order. */
const RECORD = `
  window.started = [];
  window.sounding = new Set();
  const { start, stop } = AudioBufferSourceNode.prototype;
  AudioBufferSourceNode.prototype.stop = function (...at) {
    window.sounding.delete(this);
    return stop.call(this, ...at);
  };
  AudioBufferSourceNode.prototype.start = function (at, ...rest) {
    window.sounding.add(this);
    this.addEventListener('ended', () => window.sounding.delete(this));
    window.started.push({ at, seconds: this.buffer.duration, sounds: true });
    return start.call(this, at, ...rest);
  };
`;
interface Started {
  readonly at: number;
  readonly seconds: number;
}
/** Times of the notes that were handed over, from the first one on; clicks are short. */
const times = async (page: Page): Promise<readonly number[]> => {
  const all = (await page.evaluate('window.started')) as readonly Started[];
  return all.filter((s) => s.seconds > 1).map((s) => s.at);
};

test('a drill is chosen in the sentence and played: the lit note follows the times that were handed to the audio clock', async ({
  page,
}) => {
  await open(page, A_DORIAN);
  await page.evaluate(RECORD);
  await choose(page, 'Drill', 'groups', (list) => list.getByLabel('Notes in a group').selectOption('three'));
  await choose(page, 'Notes a beat', 'sixteenths');
  await setTempo(page, 60);
  await set(page, 'More', async (body) => {
    await expect(body).toContainText(
      'the first note of a group falls on a beat again after 12 notes, and on the first beat of a bar after 48',
    );
    await body.getByRole('switch', { name: 'count in' }).click();
    await body.getByLabel('The first stroke').selectOption('an up stroke');
    await expect(body).toContainText(/inside.*, beginning with an up stroke\./);
  });
  await expect(part(page, 'More')).toContainText('beginning with an up stroke, no count-in');
  await expect(page).toHaveURL(/begins=up/);
  // The space plays wherever the focus is, on the neck too, where it chooses nothing then.
  await page.keyboard.press('n');
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('Space');
  await says(page, 'A Dorian, root on string 6 fret 5');
  await expect(play(page)).toHaveText('Stop');
  await expect.poll(() => note(page), { timeout: 20_000 }).toBeGreaterThan(6);
  const handed = await times(page);
  expect(handed.length).toBeGreaterThan(8);
  handed.slice(1).forEach((at, i) => expect(at - handed[i]!).toBeCloseTo(0.25, 6));
  // What is lit on the neck is what the sentence says of it.
  const said = await practice(page)
    .getByText(/^Note \d+ of/)
    .textContent();
  expect(said).toMatch(/string \d fret \d+/);
  // Another key while it plays: it goes on there.
  const many = handed.length;
  // Two of them at once as well, while the sounds of the first are not there yet.
  await page.keyboard.press('+');
  await page.keyboard.press('+');
  await page.keyboard.press('-');
  await says(page, 'B♭ Dorian');
  await expect.poll(async () => (await times(page)).length, { timeout: 20_000 }).toBeGreaterThan(many + 14);
  await expect(play(page)).toHaveText('Stop');
  await expect(practice(page).getByText(/^Note \d+ of/)).toContainText(/[A-G]/);
  await page.keyboard.press('Space');
  await expect(play(page)).toHaveText('Play');
  await expect(page).toHaveURL(/drill=groups\.3\.twice/);
  await page.reload();
  await expect(part(page, 'Drill')).toContainText('groups of three');
});

test('the tempo changes while it plays, and the next note comes when it would have come; another drill and leaving stop the sound', async ({
  page,
}) => {
  await open(page, `${A_DORIAN}&count=no&tempo=60`);
  await page.evaluate(RECORD);
  await play(page).click();
  await expect.poll(() => note(page), { timeout: 20_000 }).toBeGreaterThan(1);
  for (let i = 0; i < 8; i++) await practice(page).getByRole('button', { name: '5 faster' }).click();
  await expect(play(page)).toHaveText('Stop');
  // An eighth at 100 is 0.3 s. One of the last notes may begin the next pass, after the rest of the bar.
  const apart = async (): Promise<number> => {
    const handed = [...(await times(page))].sort((a, b) => a - b).slice(-4);
    return Math.min(...handed.slice(1).map((at, i) => Math.round((at - handed[i]!) * 1e6) / 1e6));
  };
  await expect.poll(apart, { timeout: 4000 }).toBe(0.3);
  await play(page).click();
  await choose(page, 'Drill', /^jumps/);
  await play(page).click();
  await expect.poll(() => note(page), { timeout: 20_000 }).toBeGreaterThan(1);
  await task(page, 'Shape').click();
  await expect(panel(page, 'Shape')).toBeVisible();
  // Nothing sounds any more, nor is anything handed over for later.
  await expect.poll(() => page.evaluate('window.sounding.size')).toBe(0);
});

test('rounds are kept in the log: after a reload the record is there, the same shape in another key has it, and it begins where it is comfortable', async ({
  page,
}) => {
  await open(
    page,
    '/new/practice?root=A&scale=mixolydian&at=6.5&layout=count.3&count=no&drill=whole-range.1&part=1.4',
  );
  await set(page, 'Tempo', async (body) => {
    await body.getByLabel('Quarter notes a minute').fill('100');
    await body.getByRole('switch', { name: 'go up in tempo' }).click();
  });
  await expect(practice(page)).toContainText('the next visit begins where it is comfortable');
  await play(page).click();
  const clean = practice(page).getByRole('button', { name: 'That was clean' });
  const kept = practice(page).getByText(/^In the log: /);
  /** Says of the round that is over by then how it was. */
  const judge = async (how: () => Promise<void>, said: string): Promise<void> => {
    await expect(clean).not.toHaveAttribute('aria-disabled', 'true', { timeout: 10_000 });
    await how();
    await expect(kept).toHaveText(said);
  };
  const byKey = (): Promise<void> => page.keyboard.press('c');
  // Nothing was played to its end yet.
  await byKey();
  await expect(practice(page)).toContainText('A round counts once it is played to its end.');
  await judge(byKey, 'In the log: clean at 100.');
  // Of one round something is said once, and what was said can be taken back.
  await byKey();
  await expect(practice(page)).toContainText('That round is in the log already');
  await practice(page).getByRole('button', { name: 'Take it back' }).click();
  await expect(practice(page)).toContainText('2 clean rounds to go at 100.');
  for (const at of [100, 100, 105, 105]) await judge(byKey, `In the log: clean at ${at}.`);
  await judge(
    () => practice(page).getByRole('button', { name: 'Not yet' }).click(),
    'In the log: not yet clean at 110.',
  );
  await expect(practice(page)).toContainText('2 clean rounds to go at 110; clean so far at 105.');
  await play(page).click();
  await expect(practice(page)).toContainText('Clean at 105 at most; the next visit begins at 100.');
  await page.reload();
  await practice(page).getByText('Rounds played').click();
  await expect(
    practice(page)
      .getByRole('listitem')
      .filter({ hasText: /, 1(00|05|10): (clean|not yet)/ }),
  ).toHaveCount(5);
  // A step higher on the same string it is the same shape.
  await open(
    page,
    '/new/practice?root=B&scale=mixolydian&at=6.7&layout=count.3&count=no&drill=whole-range.1',
  );
  await expect(practice(page)).toContainText('Clean at 105 at most');
  await expect(part(page, 'Tempo')).toContainText('100');
  // Sixteenths are another thing to practise, and have no record.
  await choose(page, 'Notes a beat', 'sixteenths');
  await expect(practice(page)).toContainText('the next visit begins where it is comfortable');
  await choose(page, 'Notes a beat', 'eighths');
  await practice(page).getByText('Rounds played').click();
  const clean105 = practice(page).getByRole('listitem').filter({ hasText: '105: clean' });
  for (const left of [1, 0]) {
    await clean105.first().getByRole('button').click();
    await expect(clean105).toHaveCount(left);
  }
  await expect(practice(page)).toContainText('Clean at 100 at most');
  await practice(page).getByRole('link', { name: 'Everything in the log' }).click();
  await expect(
    page
      .getByRole('region', { name: /^Today/ })
      .getByText('Whole range on Mixolydian position, in eighths')
      .first(),
  ).toBeVisible();
});

test('staff and tablature follow the sound: the lit note is the one that is heard, a click on a note goes to it, and it is played from there', async ({
  page,
}) => {
  await open(page, `${A_DORIAN}&count=no&tempo=60&drill=groups.3.twice`);
  const written = practice(page).getByRole('img', { name: /^Staff and tablature of groups of three/ });
  const lit = practice(page).locator('.lamp.lit');
  await expect(lit).toBeVisible();
  /** The fret that stands in the lamp. */
  const read = (): Promise<string | null> =>
    lit.evaluate((band) => {
      const { left, right, top, bottom } = band.getBoundingClientRect();
      const under = [...document.querySelectorAll('.notation .vf-tabnote text')].find((text) => {
        const box = text.getBoundingClientRect();
        const [x, y] = [box.x + box.width / 2, box.y + box.height / 2];
        return x > left + 4 && x < right - 4 && y > top && y < bottom;
      });
      return `${(band as HTMLElement).dataset['note']}: ${under?.textContent}`;
    });
  expect(await read()).toBe('1: 5');
  const fifth = written.locator('.vf-tabnote').nth(4);
  await fifth.click();
  expect(await note(page)).toBe(5);
  expect(await read()).toBe(`5: ${await fifth.textContent()}`);
  await play(page).click();
  const seen = new Map<number, string>();
  await expect
    .poll(
      async () => {
        const [at, fret = ''] = ((await read()) ?? '').split(': ');
        seen.set(Number(at), fret);
        return Math.max(...seen.keys());
      },
      { timeout: 20_000, intervals: [40] },
    )
    .toBeGreaterThan(9);
  expect(Math.min(...seen.keys())).toBe(5);
  await play(page).click();
  const frets = await written.locator('.vf-tabnote').allTextContents();
  for (const [at, fret] of seen) expect([at, fret]).toEqual([at, frets[at - 1]]);
  // It goes back to where it began; a note that is clicked while it plays is the next one that sounds.
  expect(await note(page)).toBe(5);
  await expect(practice(page).locator('.lamp.next')).toBeVisible();
  await play(page).click();
  await expect.poll(() => note(page), { timeout: 20_000, intervals: [40] }).toBeGreaterThan(7);
  await fifth.click();
  await expect.poll(() => note(page), { timeout: 20_000, intervals: [40] }).toBeLessThan(7);
  await play(page).click();
});

test('degrees and names are asked for before they sound and answered by keyboard', async ({ page }) => {
  await open(page, `${A_DORIAN}&drill=root-to-root.once`);
  await page.evaluate(RECORD);
  await set(page, 'More', (body) => body.getByLabel('Say of each note').selectOption('its degree'));
  const asked = practice(page).getByRole('region', { name: 'Say it' });
  await expect(asked).toContainText('Which degree has string 6 fret 5?');
  // The neck does not give it away, to nobody.
  await expect(neck(page).getByRole('gridcell', { name: 'String 6, fret 5: to be said' })).toHaveCount(1);
  // Keys answer wherever the focus is, and none leads away; what is asked is said.
  await expect(asked.getByRole('status', { name: 'The question' })).toHaveText(
    /^Which degree has string 6 fret 5/,
  );
  await part(page, 'Scale').focus();
  await page.keyboard.press('s');
  await page.keyboard.press('9');
  await expect(page.getByRole('dialog')).toHaveCount(0);
  await page.keyboard.press('4');
  await expect(asked).toContainText('It is not 4.');
  expect(await times(page)).toHaveLength(0);
  await page.keyboard.press('1');
  await expect(asked).toContainText('Which degree has string 6 fret 7?');
  await expect(asked).toContainText('0 of 1 at the first try.');
  await expect.poll(() => times(page)).toHaveLength(1);
  await expect(neck(page).getByRole('gridcell', { name: 'String 6, fret 5: 1' })).toHaveCount(1);
  for (const key of '23456717654321') await page.keyboard.press(key);
  await expect(asked).toContainText('All 15 answered, 14 of them at the first try.');
  await expect(page).toHaveURL(/practice/);
  await asked.getByRole('button', { name: 'Ask me again' }).click();
  await set(page, 'More', (body) => body.getByLabel('Say of each note').selectOption('its name'));
  await expect(asked).toContainText('Which name has string 6 fret 5?');
  await page.keyboard.press('Escape');
  await asked.getByRole('button', { name: 'A', exact: true }).click();
});

test('a drone sounds by itself until it is ended or the task is left, and jumps leave two bars free', async ({
  page,
}) => {
  await open(page, `${A_DORIAN}&drill=jumps.1.16.2&tempo=120`);
  await page.evaluate(`
    window.drones = [];
    for (const what of ['start', 'stop']) {
      const was = OscillatorNode.prototype[what];
      OscillatorNode.prototype[what] = function (...at) { window.drones.push([what, Math.round(this.frequency.value)]); return was.call(this, ...at); };
    }`);
  const drones = (): Promise<unknown> => page.evaluate('window.drones');
  await set(page, 'More', async (body) => {
    await body.getByLabel('Drone on').selectOption('its plain chord');
    await body.getByRole('switch', { name: 'Drone' }).click();
  });
  // A minor from A2: 110, 165, 220 and 262 Hz.
  await expect.poll(drones).toEqual([
    ['start', 110],
    ['start', 165],
    ['start', 220],
    ['start', 262],
  ]);
  await task(page, 'Shape').click();
  await expect.poll(async () => ((await drones()) as unknown[]).length).toBe(8);
  await task(page, 'Practice').click();
  await set(page, 'More', async (body) => {
    await body.getByRole('switch', { name: /two are free/ }).click();
    await body.getByLabel('Read it as').selectOption('tablature as text');
  });
  // Of 32 eighths four bars sound, two and two: between them the tablature has two empty bars.
  await set(page, 'Drill', (list) => list.getByLabel('Notes in the line').fill('32'));
  const sounds = async (): Promise<readonly boolean[]> => {
    const text =
      (await practice(page)
        .getByRole('region', { name: /plain text/ })
        .textContent()) ?? '';
    return text.split('\n\n').flatMap((system) => {
      const rows = system
        .split('\n')
        .slice(0, 6)
        .map((row) => row.split('|').slice(1, -1));
      return rows[0]!.map((_, bar) => rows.some((row) => /\d/.test(row[bar]!)));
    });
  };
  await expect.poll(sounds).toEqual([true, true, false, false, true, true]);
});

test('what was opened once goes on without the server: other drills are written, played and asked for', async ({
  page,
  context,
}) => {
  await open(page, `${A_DORIAN}&count=no&tempo=120&drill=up-and-down.once`);
  await page.evaluate(RECORD);
  await play(page).click();
  await expect.poll(() => note(page), { timeout: 20_000 }).toBeGreaterThan(2);
  await play(page).click();
  await context.setOffline(true);
  await choose(page, 'Drill', /^broken intervals/);
  await set(page, 'More', async (body) => {
    await body.getByLabel('To note').fill('8');
  });
  await expect(
    practice(page).getByRole('img', { name: /^Staff and tablature of broken intervals in thirds/ }),
  ).toBeVisible();
  const before = (await times(page)).length;
  await play(page).click();
  await expect.poll(async () => (await times(page)).length, { timeout: 20_000 }).toBeGreaterThan(before + 4);
  await expect(practice(page).getByRole('button', { name: 'That was clean' })).not.toHaveAttribute(
    'aria-disabled',
    'true',
    { timeout: 20_000 },
  );
  await page.keyboard.press('c');
  await page.getByRole('button', { name: '1 not sent yet' }).click();
  const list = page.getByRole('dialog', { name: 'Not sent yet' });
  await expect(list.getByRole('listitem')).toContainText([
    /^A round of practice: broken intervals.*The server cannot be reached\./,
  ]);
  await context.setOffline(false);
  await list.getByRole('button', { name: 'Try now' }).click();
  await expect(list).toContainText('Everything is sent.');
  await page.keyboard.press('Escape');
  await play(page).click();
  await expect(practice(page).getByText(/^Clean at 120 at most/)).toBeVisible();
});

test('on an upright screen a tap anywhere says that a round was clean, and what is read stands by the neck', async ({
  browser,
}) => {
  const page = await browser.newPage({ viewport: { width: 420, height: 900 } });
  await open(page, `${A_DORIAN}&count=no&tempo=90&climb=160.5.1&part=1.4`);
  await turnSheet(page, 'Practice');
  await play(page).click();
  const clean = page.getByRole('button', { name: 'That was clean' });
  await expect(clean).toBeInViewport();
  await expect(clean).not.toHaveAttribute('aria-disabled', 'true', { timeout: 10_000 });
  await neck(page).click({ position: { x: 60, y: 200 } });
  await expect(practice(page)).toContainText('1 clean round to go at 95; clean so far at 90.');
  // The tap moved no root.
  await expect(page.getByRole('button', { name: /^String and fret: / })).toContainText('string 6 fret 5');
  await page.close();
});

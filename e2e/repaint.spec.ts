import { chooseScale, chooseTuning, mark, neck, open, says } from './player.ts';
import { expect, test } from './test.ts';

const A_PENTATONIC = '/new?root=A&scale=minor-pentatonic&at=6.5&layout=count.2';

test('after many changes in a row the neck shows what a fresh visit shows', async ({ page }) => {
  await open(page, A_PENTATONIC);
  // In whatever order they stand in the document.
  const drawn = (): Promise<string[]> =>
    neck(page).evaluate((svg) => {
      const origin = svg.getBoundingClientRect();
      const all = [...svg.querySelectorAll('.mark')].map((m) => {
        const { left, top } = m.querySelector('path')!.getBoundingClientRect();
        const at = [left - origin.left, top - origin.top].map(Math.round);
        return `${m.getAttribute('class')} ${m.textContent} ${at.join()}`;
      });
      return all.sort();
    });
  await page.keyboard.type('+++]]--][++.,+');
  await chooseScale(page, 'harmonic minor');
  await page.keyboard.type('+++++]');
  await chooseTuning(page, 'B1 E2 A2 D3 G3 B3 E4');
  await page.keyboard.type('---]');
  await says(page, 'E♭ harmonic minor');
  const before = await drawn();
  await page.reload();
  await says(page, 'E♭ harmonic minor');
  await expect(mark(page, 7, 6)).toBeVisible();
  expect(before.length).toBeGreaterThan(60);
  expect(before).toEqual(await drawn());
});

test('a key held down takes the neck from key to key, never back', async ({ page }) => {
  await open(page, A_PENTATONIC);
  await expect(mark(page, 6, 5)).toBeVisible();
  const seen = await neck(page).evaluate(async (svg) => {
    const drawings: string[] = [];
    const look = (): void => {
      const now = [...svg.querySelectorAll('.mark')]
        .map((m) => `${m.getAttribute('class')} ${m.getAttribute('transform')} ${m.textContent}`)
        .join();
      if (now !== drawings.at(-1)) drawings.push(now);
    };
    look();
    const watching = new MutationObserver(look);
    watching.observe(svg, { subtree: true, attributes: true, childList: true, characterData: true });
    const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
    for (let i = 0; i < 11; i++) {
      document.body.dispatchEvent(new KeyboardEvent('keydown', { key: '+', bubbles: true }));
      await pause(25);
    }
    await pause(1000);
    watching.disconnect();
    return drawings;
  });
  expect(seen).toHaveLength(12);
  expect(new Set(seen).size).toBe(12);
  await says(page, 'G♯ minor pentatonic');
});

import { markClass, type MarkKind, outline } from '@crow-ladder/picture';
import { type Page } from '@playwright/test';
import { expect, test } from './test.ts';
import { open } from './player.ts';

/** The marks that lie beside each other on a neck that is compared, altered or added to. */
const KINDS: readonly MarkKind[] = [
  'root',
  'note',
  'shared',
  'lower',
  'upper',
  'altered',
  'added',
  'passing',
  'note',
];
const SIZE = 60;

/**
 * What eyes see that miss one kind of cone, as linear light, rows for red, green and blue: Machado, Oliveira and Fernandes, "A Physiologically-based
 * Model for Simulation of Color Vision Deficiency", 2009, severity 1; values from memory.
 */
const EYES = {
  protanopia: [0.152286, 1.052583, -0.204868, 0.114503, 0.786281, 0.099216, -0.003882, -0.048116, 1.051998],
  deuteranopia: [0.367322, 0.860646, -0.227968, 0.280085, 0.672501, 0.047413, -0.01182, 0.04294, 0.968881],
  tritanopia: [1.255528, -0.076749, -0.178779, -0.078411, 0.930809, 0.147602, 0.004733, 0.691367, 0.3039],
  /** Luminance alone (WCAG 2.2, relative luminance). */
  grey: [0.2126, 0.7152, 0.0722, 0.2126, 0.7152, 0.0722, 0.2126, 0.7152, 0.0722],
} as const;

/** Each kind as it is drawn on the page, seen by some eyes: how far its pixels are from those of each other kind. */
async function apart(
  page: Page,
): Promise<readonly { readonly pair: string; readonly eyes: string; readonly share: number }[]> {
  await page.evaluate(
    ({ marks, size }) => {
      const box = document.createElement('div');
      box.id = 'marks';
      box.style.cssText = `position:fixed;inset:0;z-index:99;background:var(--ground);display:flex;align-content:start`;
      box.innerHTML = marks
        .map(
          ({ d, name }) =>
            `<svg class="neck" width="${size}" height="${size}" viewBox="-24 -24 48 48"><g class="${name}"><path d="${d}"/></g></svg>`,
        )
        .join('');
      document.body.append(box);
    },
    { marks: KINDS.map((kind) => ({ d: outline(kind, 13, 12), name: markClass({ kind }) })), size: SIZE },
  );
  const png = (
    await page.screenshot({ clip: { x: 0, y: 0, width: SIZE * KINDS.length, height: SIZE } })
  ).toString('base64');
  return page.evaluate(
    async ({ png, kinds, size, eyes }) => {
      const image = new Image();
      image.src = `data:image/png;base64,${png}`;
      await image.decode();
      const canvas = Object.assign(document.createElement('canvas'), {
        width: image.width,
        height: image.height,
      });
      const ctx = canvas.getContext('2d')!;
      ctx.drawImage(image, 0, 0);
      const linear = (v: number): number => (v <= 0.04045 ? v / 12.92 : ((v + 0.055) / 1.055) ** 2.4);
      const shown = (v: number): number => {
        const x = Math.min(1, Math.max(0, v));
        return x <= 0.0031308 ? 12.92 * x : 1.055 * x ** (1 / 2.4) - 0.055;
      };
      const tile = (i: number): Uint8ClampedArray => ctx.getImageData(i * size, 0, size, size).data;
      const found: { pair: string; eyes: string; share: number }[] = [];
      for (const [name, m] of Object.entries(eyes)) {
        const seen = kinds.map((_, i) => {
          const data = tile(i);
          return Array.from({ length: size * size }, (_, p) => {
            const rgb = [0, 1, 2].map((c) => linear(data[p * 4 + c]! / 255));
            return [0, 1, 2].map((c) =>
              shown(m[c * 3]! * rgb[0]! + m[c * 3 + 1]! * rgb[1]! + m[c * 3 + 2]! * rgb[2]!),
            );
          });
        });
        kinds.forEach((a, i) =>
          kinds.slice(i + 1).forEach((b, k) => {
            const [x, y] = [seen[i]!, seen[i + 1 + k]!];
            // A fifth of the way from black to white is a difference that is seen.
            const differ = x.filter((rgb, p) => rgb.some((v, c) => Math.abs(v - y[p]![c]!) > 0.2)).length;
            found.push({ pair: `${a}, ${b}`, eyes: name, share: differ / (26 * 24 * (size / 48) ** 2) });
          }),
        );
      }
      return found;
    },
    { png, kinds: KINDS, size: SIZE, eyes: EYES },
  );
}

for (const theme of ['light', 'dark'] as const)
  test(`kinds of marks stay apart without colour and for eyes that miss one, ${theme}`, async ({ page }) => {
    await page.emulateMedia({ colorScheme: theme });
    await open(page, '/');
    const found = await apart(page);
    // The same kind twice is not apart: what is measured is the marks.
    const same = found.filter(({ pair }) => pair === 'note, note');
    expect(same.map(({ share }) => share)).toEqual([0, 0, 0, 0]);
    const others = found.filter((it) => !same.includes(it));
    expect(others).toHaveLength((4 * (KINDS.length * (KINDS.length - 1))) / 2 - 4);
    const least = others.reduce((a, b) => (a.share <= b.share ? a : b));
    // Of the area of a mark so much looks otherwise.
    expect(least.share).toBeGreaterThan(0.2);
  });

/** Makes the faces that sheets of paper bring along as SVG: Latin letters, signs of music and of text, from the whole faces. */
import { readFileSync, writeFileSync } from 'node:fs';
import subsetFont from 'subset-font';

const LATIN = Array.from({ length: 0x250 - 0x20 }, (_, i) => String.fromCodePoint(i + 0x20)).join('');
const SIGNS = '♭♮♯𝄪𝄫–—‘’“”„…·×→←↑↓½¼¾°′″Δø−';
const FACES = { paper: 'DejaVuSansCondensed', 'paper-bold': 'DejaVuSansCondensed-Bold' };

for (const [name, face] of Object.entries(FACES)) {
  const whole = readFileSync(new URL(`../node_modules/dejavu-fonts-ttf/ttf/${face}.ttf`, import.meta.url));
  const part = await subsetFont(whole, LATIN + SIGNS, { targetFormat: 'woff2' });
  writeFileSync(new URL(`../packages/web/src/app/fonts/${name}.woff2`, import.meta.url), part);
}

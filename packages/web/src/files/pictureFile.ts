import marksFont from '@fontsource-variable/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-wght-normal.woff2?url';
import css from '@crow-ladder/picture/scene.css?raw';
import { geometryOf, type Scene, svgText } from '@crow-ladder/picture';
import accidentalsFont from '../app/fonts/accidentals.woff2?url';

/** The shipped faces by the names that other programs know, with the weights and characters that each has. */
const FACES = [
  { family: 'Atkinson Hyperlegible Next', url: marksFont, rules: 'font-weight:200 800' },
  {
    family: 'Crow Ladder Accidentals',
    url: accidentalsFont,
    rules: 'unicode-range:U+266D-266F;size-adjust:122%',
  },
] as const;
const FAMILY = "'Crow Ladder Accidentals','Atkinson Hyperlegible Next',Verdana,sans-serif";

async function asData(url: string): Promise<string> {
  const blob = await (await fetch(url)).blob();
  return new Promise((done, fail) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result as string);
    reader.onerror = () => fail(reader.error!);
    reader.readAsDataURL(blob);
  });
}

/** The faces written into the picture, so that it looks the same everywhere. */
async function fontRules(): Promise<string> {
  const rules = await Promise.all(
    FACES.map(
      async ({ family, url, rules: more }) =>
        `@font-face{font-family:'${family}';src:url(${await asData(url)}) format('woff2');${more}}`,
    ),
  );
  return rules.join('');
}

/** The page's colours by name, as they are now. */
function values(): Record<string, string> {
  const style = getComputedStyle(document.documentElement);
  const names = new Set([...css.matchAll(/var\(--([\w-]+)\)/g)].map(([, name]) => name!));
  return {
    ...Object.fromEntries([...names, 'ground'].map((n) => [n, style.getPropertyValue(`--${n}`).trim()])),
    'font-marks': FAMILY,
  };
}

/** How many pixels of a PNG stand for a unit of the drawing. */
const SHARP = 2;

/** An SVG as a PNG of so many pixels. */
export async function pngOf(
  svg: string,
  { width, height }: { width: number; height: number },
): Promise<Blob> {
  const image = new Image();
  image.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svg)}`;
  await image.decode();
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
  return new Promise((done, fail) =>
    canvas.toBlob((blob) => (blob ? done(blob) : fail(new Error('No picture came out.'))), 'image/png'),
  );
}

/** A scene as the data of an SVG or PNG file. */
export async function pictureFile(kind: 'svg' | 'png', scene: Scene, title: string): Promise<Blob> {
  const svg = svgText(scene, { title, css, values: values(), fonts: await fontRules() });
  if (kind === 'svg') return new Blob([svg], { type: 'image/svg+xml' });
  const { width, height } = geometryOf(scene.figure);
  return pngOf(svg, { width: width * SHARP, height: height * SHARP });
}

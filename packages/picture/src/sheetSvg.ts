import { type Laid, PAPERS, type PaperId, type Sheet } from './book.ts';
import { type Drawn, GREY, type Lettered, type Tone } from './printed.ts';
import { escaped, short } from './svgText.ts';

interface SheetSvgOptions {
  /** What it shows, for those who cannot see it. */
  readonly title: string;
  /** Rules that bring the faces along, named Paper, where they are to be in it. */
  readonly fonts?: string;
}

const paint = (tone: Tone | null): string => {
  if (!tone) return 'none';
  const grey = GREY[tone].toString(16).padStart(2, '0');
  return `#${grey}${grey}${grey}`;
};
const at = (x: number, y: number): string => (x || y ? ` transform="translate(${x} ${y})"` : '');
const ANCHORS = { left: 'start', center: 'middle', right: 'end' } as const;

const drawnText = ({ d, x, y, stroke, width, dash, fill }: Drawn): string =>
  `<path d="${d}"${at(x, y)} fill="${paint(fill)}"${stroke ? ` stroke="${paint(stroke)}" stroke-width="${width}"` : ''}${dash.length ? ` stroke-dasharray="${dash.join(' ')}"` : ''}/>`;
const letteredText = ({ word, x, y, size, bold, tone, align }: Lettered): string =>
  `<text x="${x}" y="${y}" font-size="${size}"${bold ? ' font-weight="700"' : ''} fill="${paint(tone)}" text-anchor="${ANCHORS[align]}" dominant-baseline="central">${escaped(word)}</text>`;
const laidText = ({ x, y, scale, inks }: Laid): string =>
  `<g transform="translate(${x} ${y}) scale(${scale})">${short(inks.map((ink) => ('d' in ink ? drawnText(ink) : letteredText(ink))).join(''))}</g>`;

/** A page of a book as an SVG file of its size: its text is text. */
export function sheetSvg(sheet: Sheet, paper: PaperId, { title, fonts }: SheetSvgOptions): string {
  const { width, height } = PAPERS[paper];
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${width} ${height}" width="${width}mm" height="${height}mm" role="img" aria-label="${escaped(title)}" font-family="Paper, 'DejaVu Sans Condensed', sans-serif">`,
    ...(fonts ? [`<style>${fonts}</style>`] : []),
    `<title>${escaped(title)}</title>`,
    `<rect width="100%" height="100%" fill="#fff"/>`,
    ...sheet.map(laidText),
    '</svg>',
    '',
  ].join('\n');
}

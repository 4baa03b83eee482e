import { type ChartDraft } from '@crow-ladder/contract';
import { type Lettered } from '@crow-ladder/picture';

/** Sizes of letters on a sheet, in mm. */
export const TEXT = { title: 6.5, head: 4.2, plain: 3.4, small: 3 } as const;

/** How wide signs of the condensed face are, in parts of their size; a little more than they are. */
const WIDE: readonly (readonly [signs: RegExp, wide: number])[] = [
  [/[ \u00a0.,:;'|iljI/()-]/u, 0.36],
  [/[mwMW%@]/u, 0.9],
  [/[A-Z♯♭]/u, 0.68],
];
const OTHERS = 0.58;
/** At most how wide a text is, in the unit of its size. */
const widthOf = (text: string, size: number): number =>
  size * [...text].reduce((sum, c) => sum + (WIDE.find(([signs]) => signs.test(c))?.[1] ?? OTHERS), 0);

/** A word on a sheet, its middle at a height. */
export const word = (
  text: string,
  x: number,
  y: number,
  size: number,
  more: Partial<Lettered> = {},
): Lettered => ({ word: text, x, y, size, bold: false, tone: 'ink', align: 'left', ...more });

/** Text in lines that are no wider than a length; words that are longer are cut. */
export function wrapped(text: string, wide: number, size: number): readonly string[] {
  const fits = (line: string): boolean => widthOf(line, size) <= wide;
  return text.split('\n').flatMap((paragraph) => {
    const lines: string[] = [];
    let line = '';
    for (let rest of paragraph.split(/[ \t]+/u).filter(Boolean)) {
      if (line && fits(`${line} ${rest}`)) {
        line = `${line} ${rest}`;
        continue;
      }
      if (line) lines.push(line);
      while (!fits(rest)) {
        const piece = [...rest];
        while (piece.length > 1 && !fits(piece.join(''))) piece.pop();
        lines.push(piece.join(''));
        rest = rest.slice(piece.join('').length);
      }
      line = rest;
    }
    return [...lines, line];
  });
}

/** Lines of text under each other from a height on, `leading` of their size apart. */
export const linesOf = (
  lines: readonly string[],
  y: number,
  size: number,
  leading: number,
  more: Partial<Lettered> = {},
): readonly Lettered[] => lines.map((text, i) => word(text, 0, y + (i + 0.55) * size * leading, size, more));

/** The player's own words about a chart. */
export const ownWords = ({ notes, tags }: ChartDraft): readonly string[] =>
  [notes, tags.length ? `Tags: ${tags.join(', ')}` : ''].filter(Boolean);

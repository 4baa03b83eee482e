import { type Ink, type Laid, PAPERS, type PaperId, type Sheet } from '@crow-ladder/picture';
import { TEXT, word } from './words.ts';

/** Lengths on a sheet, in mm. */
export const MARGIN = 15;
export const FOOT = 8;

/** How wide and high what stands on a sheet is, in mm. */
export const roomOn = (paper: PaperId): { readonly wide: number; readonly high: number } => {
  const { width, height } = PAPERS[paper];
  return { wide: width - 2 * MARGIN, high: height - 2 * MARGIN - FOOT };
};
/** A fine line across a sheet. */
export const ruled = (y: number, from: number, to: number): Ink => ({
  d: `M${from} 0H${to}`,
  x: 0,
  y,
  stroke: 'soft',
  width: 0.15,
  dash: [],
  fill: null,
});

/** Sheets with what stands on every page below: the book's name, and which page it is. */
export const withFeet = (title: string, paper: PaperId, sheets: readonly Sheet[]): readonly Sheet[] =>
  sheets.map((sheet, i) => [
    ...sheet,
    {
      x: MARGIN,
      y: PAPERS[paper].height - FOOT,
      scale: 1,
      inks: [
        word(title, 0, 0, TEXT.small, { tone: 'soft' }),
        word(`${i + 1} of ${sheets.length}`, roomOn(paper).wide, 0, TEXT.small, {
          tone: 'soft',
          align: 'right',
        }),
      ],
    },
  ]);

/** Something that stands across a page, and is not broken. */
export interface Block {
  readonly high: number;
  /** What is laid there, from the block's corner. */
  readonly laid: readonly Laid[];
}
/** Blocks under each other, on as many pages as they take. */
export function flowed(blocks: readonly Block[], paper: PaperId): readonly Sheet[] {
  const { high } = roomOn(paper);
  const sheets: Laid[][] = [[]];
  let y = 0;
  for (const block of blocks) {
    if (y > 0 && y + block.high > high) {
      sheets.push([]);
      y = 0;
    }
    const top = MARGIN + y;
    sheets.at(-1)!.push(...block.laid.map((it) => ({ ...it, x: it.x + MARGIN, y: it.y + top })));
    y += block.high;
  }
  return sheets;
}

import { PAPERS, type PaperId } from '@crow-ladder/picture';
import { pngOf } from './pictureFile.ts';

/** Dots of a page's picture to an inch, and mm to an inch. */
const DOTS = 200;
const INCH = 25.4;

/** A page of a book as the bytes of a PNG file. */
export async function pageImage(svg: string, paper: PaperId): Promise<Uint8Array<ArrayBuffer>> {
  const { width, height } = PAPERS[paper];
  const dots = (mm: number): number => Math.round((mm / INCH) * DOTS);
  const png = await pngOf(svg, { width: dots(width), height: dots(height) });
  return new Uint8Array(await png.arrayBuffer());
}

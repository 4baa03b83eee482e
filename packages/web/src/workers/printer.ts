import normal from 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed.ttf?url';
import bold from 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed-Bold.ttf?url';
import { sheetSvg } from '@crow-ladder/picture';
import { expose } from 'comlink';
import boldPart from '../app/fonts/paper-bold.woff2?url';
import normalPart from '../app/fonts/paper.woff2?url';
import { bookOf } from '../paper/book.ts';
import { type Printer } from './printing.ts';

/** Bytes as base64 text, in pieces: a call takes only so many arguments. */
function base64(bytes: Uint8Array): string {
  let text = '';
  for (let i = 0; i < bytes.length; i += 32_768)
    text += String.fromCharCode(...bytes.subarray(i, i + 32_768));
  return btoa(text);
}
const faceAt = async (url: string): Promise<string> =>
  base64(new Uint8Array(await (await fetch(url)).arrayBuffer()));

/** The faces of paper as rules that bring them along. */
async function faceRules(): Promise<string> {
  const rules = [
    [normalPart, 400],
    [boldPart, 700],
  ] as const;
  const all = await Promise.all(
    rules.map(
      async ([url, weight]) =>
        `@font-face{font-family:Paper;font-weight:${weight};src:url(data:font/woff2;base64,${await faceAt(url)}) format('woff2')}`,
    ),
  );
  return all.join('');
}

/** Lays out books and writes them, away from the page. */
const printer: Printer = {
  book: bookOf,
  pdf: async (book, made, onPage) => {
    const { pdfOf } = await import('@crow-ladder/picture/pdf');
    const faces = { normal: await faceAt(normal), bold: await faceAt(bold) };
    return pdfOf(book, { faces, made: new Date(made), onPage });
  },
  svgs: async ({ title, paper, sheets }) => {
    const fonts = await faceRules();
    return sheets.map((sheet, i) => sheetSvg(sheet, paper, { title: `${title}, page ${i + 1}`, fonts }));
  },
  archive: async (files) => {
    const { zipSync } = await import('fflate');
    return zipSync(Object.fromEntries(files.map(({ name, bytes }) => [name, bytes])));
  },
};
expose(printer);

import normal from 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed.ttf?url';
import bold from 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed-Bold.ttf?url';
import { type Settings } from '@crow-ladder/contract';
import { type Book } from '@crow-ladder/picture';
import { expose } from 'comlink';
import { type BookAsked, type BookChart, bookOf } from '../model/book.ts';
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

/** Lays out books and writes them, away from the page. */
const printer: Printer = {
  book: (chart: BookChart, settings: Settings, asked: BookAsked, onDiagram) =>
    bookOf(chart, settings, asked, onDiagram),
  pdf: async (book: Book, made, onPage) => {
    const { pdfOf } = await import('@crow-ladder/picture/pdf');
    const faces = { normal: await faceAt(normal), bold: await faceAt(bold) };
    return pdfOf(book, { faces, made: new Date(made), onPage });
  },
};
expose(printer);

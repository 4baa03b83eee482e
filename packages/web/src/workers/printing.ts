import { type Book } from '@crow-ladder/picture';
import { type BookAsked, type BookOf } from '../paper/asked.ts';

/** A file by its name in an archive. */
export interface Filed {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

/** What the worker that prints offers. */
export interface Printer {
  readonly book: (of: BookOf, asked: BookAsked, onDiagram: (done: number) => void) => Book;
  /** A PDF file of a book; `made` is the time that stands in it, in ms. */
  readonly pdf: (
    book: Book,
    made: number,
    onPage: (done: number) => void,
  ) => Promise<Uint8Array<ArrayBuffer>>;
  /** Each page of a book as the text of an SVG file that stands by itself. */
  readonly svgs: (book: Book) => Promise<readonly string[]>;
  /** Files in one archive. */
  readonly archive: (files: readonly Filed[]) => Promise<Uint8Array<ArrayBuffer>>;
}

import { type Settings } from '@crow-ladder/contract';
import { type Book } from '@crow-ladder/picture';
import { type BookAsked, type BookChart } from '../model/book.ts';

/** What the worker that prints offers. */
export interface Printer {
  readonly book: (
    chart: BookChart,
    settings: Settings,
    asked: BookAsked,
    onDiagram: (done: number) => void,
  ) => Book;
  /** A PDF file of a book; `made` is the time that stands in it, in ms. */
  readonly pdf: (
    book: Book,
    made: number,
    onPage: (done: number) => void,
  ) => Promise<Uint8Array<ArrayBuffer>>;
}

import { type Book, sheetSvg } from '@crow-ladder/picture';
import { useEffect } from 'react';

/** The pages of a book, or the first of them, each as large as its paper; their words are words. */
export const pagesOf = ({ paper, sheets }: Book, most = sheets.length): readonly string[] =>
  sheets
    .slice(0, most)
    .map((sheet, i) => sheetSvg(sheet, paper, { title: `Page ${i + 1} of ${sheets.length}` }));

/** What the browser prints in place of the page: a book, as long as there is one. */
export function usePrinted(book: Book | null): void {
  useEffect(() => {
    if (!book) return undefined;
    const paper = document.createElement('div');
    paper.className = 'paper';
    paper.dataset['paper'] = book.paper;
    const put = (): void => {
      paper.innerHTML = pagesOf(book).join('');
      document.body.append(paper);
    };
    const away = (): void => paper.remove();
    window.addEventListener('beforeprint', put);
    window.addEventListener('afterprint', away);
    return () => {
      away();
      window.removeEventListener('beforeprint', put);
      window.removeEventListener('afterprint', away);
    };
  }, [book]);
}

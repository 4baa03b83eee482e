import normal from 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed.ttf?url';
import bold from 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed-Bold.ttf?url';
import { type Book } from '@crow-ladder/picture';
import { proxy, type Remote, wrap } from 'comlink';
import { useEffect, useState } from 'react';
import { type BookAsked, type BookOf } from '../paper/asked.ts';
import { type Printer } from '../workers/printing.ts';

/** A printer of this page, which goes with what asked for it. */
export function usePrinter(): Remote<Printer> | null {
  const [remote, setRemote] = useState<Remote<Printer> | null>(null);
  useEffect(() => {
    const worker = new Worker(new URL('../workers/printer.ts', import.meta.url), { type: 'module' });
    setRemote(() => wrap<Printer>(worker));
    return () => worker.terminate();
  }, []);
  return remote;
}

/** A book as it stands: how many diagrams are laid out, or the book. */
export interface BookStands {
  readonly book: Book | null;
  readonly done: number;
  readonly failed: boolean;
}
/** A book laid out away from the page; null is none yet. */
export function useBook(printer: Remote<Printer> | null, of: BookOf | null, asked: BookAsked): BookStands {
  const [made, setMade] = useState<{
    readonly of: BookOf;
    readonly asked: BookAsked;
    readonly book: Book;
  } | null>(null);
  const [done, setDone] = useState(0);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    if (!printer || !of) return undefined;
    let wanted = true;
    setFailed(false);
    setDone(0);
    printer
      .book(
        of,
        asked,
        proxy((n: number) => wanted && setDone(n)),
      )
      .then(
        (book) => wanted && setMade({ of, asked, book }),
        () => wanted && setFailed(true),
      );
    return () => {
      wanted = false;
    };
  }, [printer, of, asked]);
  return { book: made?.of === of && made?.asked === asked ? made.book : null, done, failed };
}

let faces: Promise<unknown> | null = null;
/** The faces of paper, on the page too, once they are there. */
export const paperFaces = (): Promise<unknown> =>
  (faces ??= Promise.all(
    (
      [
        [normal, '400'],
        [bold, '700'],
      ] as const
    ).map(async ([url, weight]) =>
      document.fonts.add(await new FontFace('Paper', `url(${url})`, { weight }).load()),
    ),
  ));

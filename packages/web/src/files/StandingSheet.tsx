import { useEffect, useMemo, useState } from 'react';
import { BOOK_AT_FIRST, type BookOf } from '../paper/asked.ts';
import { paperFaces, useBook, usePrinter } from './usePrinter.ts';
import { usePrinted } from './usePrinted.ts';

interface StandingSheetProps {
  /** What is put on the sheet, another function whenever that has changed; null where the page prints as it stands. */
  readonly make: () => BookOf | null;
}

/** How long the page rests before its sheet is laid out for the browser's own print, in ms. */
const REST_MS = 4000;
const isPrintKey = ({ key, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): boolean =>
  key.toLowerCase() === 'p' && (ctrlKey || metaKey) && !altKey && !shiftKey;

/** What the browser prints of a chart whose task has a sheet, once the page rests; a key that prints earlier waits for it. */
export function StandingSheet({ make }: StandingSheetProps) {
  const [rested, setRested] = useState<{
    readonly make: () => BookOf | null;
    readonly asked: boolean;
  } | null>(null);
  const now = rested?.make === make ? rested : null;
  useEffect(() => {
    const timer = setTimeout(
      () => setRested((it) => (it?.make === make ? it : { make, asked: false })),
      REST_MS,
    );
    return () => clearTimeout(timer);
  }, [make]);
  const of = useMemo(() => now?.make() ?? null, [now]);
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      if (!isPrintKey(e) || now) return;
      e.preventDefault();
      setRested({ make, asked: true });
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [make, now]);
  useEffect(() => {
    if (now?.asked && !of) window.print();
  }, [now, of]);
  return of && <Sheet of={of} asked={now?.asked ?? false} />;
}

/** A sheet laid out away from the page; printed at once where it is asked for. */
function Sheet({ of, asked }: { readonly of: BookOf; readonly asked: boolean }) {
  const what = of.onPaper?.sheet ?? 'position';
  const how = useMemo(() => ({ ...BOOK_AT_FIRST, what }), [what]);
  const { book, failed } = useBook(usePrinter(), of, how);
  usePrinted(book);
  useEffect(() => {
    if (!book && !failed) return;
    const faces = paperFaces();
    if (asked) void faces.then(() => window.print());
  }, [book, failed, asked]);
  return null;
}

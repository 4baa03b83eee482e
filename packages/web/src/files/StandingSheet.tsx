import { type RefObject, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { BOOK_AT_FIRST, type BookOf } from '../paper/asked.ts';
import { paperFaces, useBook, usePrinter } from './usePrinter.ts';
import { usePrinted } from './usePrinted.ts';

interface StandingSheetProps {
  /** What is put on the sheet, another function whenever that has changed; null where the page prints as it stands. */
  readonly make: () => BookOf | null;
}

/** How long the page rests before its sheet is laid out for the browser's own print, in ms; where the pointer leaves it, as towards the browser's menu, at once. */
const REST_MS = 10_000;
const isPrintKey = ({ key, ctrlKey, metaKey, altKey, shiftKey }: KeyboardEvent): boolean =>
  key.toLowerCase() === 'p' && (ctrlKey || metaKey) && !altKey && !shiftKey;

/**
 * What the browser prints of a chart whose task has a sheet, once the page rests or the pointer leaves it; a key that prints before it is
 * laid out waits for it.
 */
export function StandingSheet({ make }: StandingSheetProps) {
  const [rested, setRested] = useState<Pick<StandingSheetProps, 'make'> | null>(null);
  const [asked, setAsked] = useState(false);
  const ready = useRef(false);
  const wanted = asked || rested?.make === make;
  const of = useMemo(() => (wanted ? make() : null), [wanted, make]);
  useEffect(() => {
    const rest = (): void => setRested({ make });
    const timer = setTimeout(rest, REST_MS);
    document.documentElement.addEventListener('mouseleave', rest);
    return () => {
      clearTimeout(timer);
      document.documentElement.removeEventListener('mouseleave', rest);
    };
  }, [make]);
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      if (!isPrintKey(e) || ready.current) return;
      e.preventDefault();
      setAsked(true);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, []);
  const printed = useCallback(() => setAsked(false), []);
  useEffect(() => {
    if (!asked || of) return;
    window.print();
    printed();
  }, [asked, of, printed]);
  return of && <Sheet of={of} asked={asked} ready={ready} onPrinted={printed} />;
}

interface SheetProps {
  readonly of: BookOf;
  /** It is printed as soon as it is laid out. */
  readonly asked: boolean;
  /** Whether it is laid out. */
  readonly ready: RefObject<boolean>;
  readonly onPrinted: () => void;
}

/** A sheet laid out away from the page. */
function Sheet({ of, asked, ready, onPrinted }: SheetProps) {
  const what = of.onPaper?.sheet ?? 'position';
  const how = useMemo(() => ({ ...BOOK_AT_FIRST, what }), [what]);
  const { book, failed } = useBook(usePrinter(), of, how);
  usePrinted(book);
  useEffect(() => {
    const there = book !== null || failed;
    ready.current = there;
    if (!there) return undefined;
    const faces = paperFaces();
    if (asked)
      void faces.then(() => {
        window.print();
        onPrinted();
      });
    return () => {
      ready.current = false;
    };
  }, [book, failed, asked, ready, onPrinted]);
  return null;
}

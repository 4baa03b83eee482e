import { type ChartDraft, type ChartQuery, type Settings } from '@crow-ladder/contract';
import { plural } from '@crow-ladder/core';
import { type Book, PAPERS, type PaperId } from '@crow-ladder/picture';
import { proxy } from 'comlink';
import { memo, useEffect, useMemo, useState } from 'react';
import {
  BOOK_AT_FIRST,
  BOOK_LABELS,
  BOOK_NECKS,
  type BookAsked,
  type BookOf,
  BOOKS,
  isSheet,
  PER_PAGE,
} from '../paper/asked.ts';
import { type OnPaper } from '../paper/onPaper.ts';
import { Dialog } from '../ui/Dialog.tsx';
import { download, fileName } from '../ui/download.ts';
import { Field } from '../ui/fields.tsx';
import { Picked } from '../ui/Picked.tsx';
import { Switch } from '../ui/Switch.tsx';
import { TaskSentence } from '../ui/TaskSentence.tsx';
import { MOST_CHARTS, useTheseCharts } from './theseCharts.ts';
import { pagesOf, usePrinted } from './usePrinted.ts';
import { paperFaces, useBook, usePrinter } from './usePrinter.ts';

interface PrintBookProps {
  /** The chart that is open; null on the page of all of them. */
  readonly chart: ChartDraft | null;
  /** The charts that are looked at, where there are several. */
  readonly charts?: ChartQuery;
  readonly settings: Settings;
  /** What the task in front puts on paper. */
  readonly onPaper: OnPaper | null;
  readonly onClose: () => void;
}

const PAPER_CHOICES = (Object.keys(PAPERS) as PaperId[]).map((id) => ({ id, name: PAPERS[id].name }));
/** Pages that are shown at once: more come on asking. */
const SHOWN = 4;
/** How long the typing rests before charts are looked for, in ms, and how much can be typed. */
const REST_MS = 300;
const FIND_MOST = 200;
const ALL: ChartQuery = { find: '', tag: '', order: 'name' };
const wordsOf = ({ find, tag }: ChartQuery): string => [find, tag].filter(Boolean).join(' ');

/** What is being written, and how far it is. */
interface Writing {
  readonly page: number;
  readonly what: string;
}

/** Charts as a book, or one of them on a sheet: its pages as they will come out, and as files. */
export function PrintBook({ chart, charts = ALL, settings, onPaper, onClose }: PrintBookProps) {
  const [asked, setAsked] = useState<BookAsked>({
    ...BOOK_AT_FIRST,
    what: chart ? (onPaper?.sheet ?? 'ladder') : 'charts',
  });
  const ask = (part: Partial<BookAsked>): void => setAsked((it) => ({ ...it, ...part }));
  const [query, setQuery] = useState(charts);
  const [find, setFind] = useState(() => wordsOf(charts));
  // The charts follow the typing once it rests.
  useEffect(() => {
    if (find === wordsOf(query)) return undefined;
    const timer = setTimeout(() => setQuery((it) => ({ ...it, tag: '', find })), REST_MS);
    return () => clearTimeout(timer);
  }, [find, query]);
  const [writing, setWriting] = useState<Writing | null>(null);
  const [lost, setLost] = useState(false);
  const [shown, setShown] = useState(SHOWN);
  const printer = usePrinter();
  const these = useTheseCharts(asked.what === 'charts' ? query : null);
  const printed = asked.what === 'charts' ? these.charts : chart;
  const of = useMemo(
    (): BookOf | null => printed && { charts: [printed].flat() as readonly ChartDraft[], settings, onPaper },
    [printed, settings, onPaper],
  );
  const { book, done, failed } = useBook(printer, of, asked);
  usePrinted(book);
  useEffect(() => void paperFaces(), []);
  const busy = !book?.sheets.length || writing !== null;
  const write = async (what: string, make: (book: Book) => Promise<void>): Promise<void> => {
    if (!book) return;
    setLost(false);
    setWriting({ page: 0, what });
    try {
      await make(book);
    } catch {
      setLost(true);
    }
    setWriting(null);
  };
  const told = (what: string) => (page: number) => setWriting({ page, what });
  const asPdf = (it: Book) =>
    write('page', async () => {
      const bytes = await printer!.pdf(it, Date.now(), proxy(told('page')));
      download(`${fileName(it.title)}.pdf`, new Blob([bytes], { type: 'application/pdf' }));
    });
  const asPictures = (it: Book) =>
    write('picture', async () => {
      const { pageImage } = await import('./pageImages.ts');
      const files = [];
      for (const [i, svg] of (await printer!.svgs(it)).entries()) {
        told('picture')(i + 1);
        const called = `page-${String(i + 1).padStart(String(it.sheets.length).length, '0')}`;
        files.push(
          { name: `${called}.svg`, bytes: new TextEncoder().encode(svg) },
          { name: `${called}.png`, bytes: await pageImage(svg, it.paper) },
        );
      }
      const bytes = await printer!.archive(files);
      download(`${fileName(it.title)}.zip`, new Blob([bytes], { type: 'application/zip' }));
    });
  const options = chart ? BOOKS : BOOKS.filter(({ id }) => id === 'charts');
  return (
    <Dialog open onOpenChange={onClose} title="Print">
      <div className="flex flex-col gap-4">
        <TaskSentence
          acts={
            <div className="flex flex-wrap gap-2">
              <button
                type="button"
                className="button button-strong"
                disabled={busy}
                onClick={() => void (book && asPdf(book))}
              >
                Save as PDF
              </button>
              <button
                type="button"
                className="button"
                disabled={busy}
                onClick={() => void paperFaces().then(() => window.print())}
              >
                Print
              </button>
              <button
                type="button"
                className="button"
                disabled={busy}
                onClick={() => void (book && asPictures(book))}
              >
                Save as pictures
              </button>
            </div>
          }
        >
          Print{' '}
          <Picked
            name="What to print"
            weight="first"
            value={asked.what}
            options={options}
            onPick={(what) => ask({ what })}
          />{' '}
          on{' '}
          <Picked
            name="Paper"
            value={asked.paper}
            options={PAPER_CHOICES}
            then=","
            onPick={(paper) => ask({ paper })}
          />{' '}
          {!isSheet(asked.what) && (
            <>
              <Picked
                name="Diagrams"
                value={asked.perPage}
                options={PER_PAGE}
                then=","
                onPick={(perPage) => ask({ perPage })}
              />{' '}
            </>
          )}
          with{' '}
          <Picked
            name="Marks"
            value={asked.labels}
            options={BOOK_LABELS}
            then={isSheet(asked.what) ? '.' : ','}
            onPick={(labels) => ask({ labels })}
          />
          {!isSheet(asked.what) && (
            <>
              {' '}
              the neck{' '}
              <Picked
                name="Neck"
                value={asked.neck}
                options={BOOK_NECKS}
                then="."
                onPick={(neck) => ask({ neck })}
              />
            </>
          )}
        </TaskSentence>
        {asked.what === 'charts' && (
          <Field
            label="Charts found by"
            hint="Name, key, scale, tuning, tag or note; nothing typed finds all of them."
          >
            <input
              type="search"
              className="input"
              value={find}
              maxLength={FIND_MOST}
              onChange={(e) => setFind(e.target.value)}
            />
          </Field>
        )}
        <div className="flex flex-wrap gap-x-6 gap-y-2">
          <Switch on={asked.words} onChange={(words) => ask({ words })}>
            With notes and tags of the chart
          </Switch>
          {!isSheet(asked.what) && (
            <Switch on={asked.tab} onChange={(tab) => ask({ tab })}>
              With tablature of each diagram
            </Switch>
          )}
        </div>
        {(failed || lost) && (
          <p role="alert" className="error">
            It could not be printed. Close this, and try once more.
          </p>
        )}
        {asked.what === 'charts' && these.trouble !== null && (
          <p role="alert" className="error">
            {these.trouble}
          </p>
        )}
        <p role="status">
          {writing
            ? `Writing ${writing.what} ${writing.page} of ${book?.sheets.length ?? 0}…`
            : book
              ? saidOf(book, these.found)
              : asked.what === 'charts' && !these.charts
                ? `Reading chart ${these.read + 1}${these.found ? ` of ${these.found}` : ''}…`
                : `Laying out diagram ${done + 1}…`}
        </p>
        {book && (
          <>
            <Pages book={book} shown={shown} />
            {book.sheets.length > shown && (
              <button type="button" className="button self-start" onClick={() => setShown(shown + 12)}>
                {`Show more: ${book.sheets.length - shown} are not shown`}
              </button>
            )}
          </>
        )}
      </div>
    </Dialog>
  );
}

/** What came of a book, and what is otherwise than it was asked for. */
const saidOf = ({ sheets, outline, remarks }: Book, found: number): string =>
  outline.length
    ? [
        `${plural(sheets.length, 'page')}, as ${sheets.length === 1 ? 'it' : 'they'} will come out.`,
        ...(found > MOST_CHARTS
          ? [`The first ${MOST_CHARTS} of ${found} charts: find fewer for the others.`]
          : []),
        ...remarks,
      ].join(' ')
    : 'There is nothing to print: no position is found.';

/** Pages as they will come out. */
const Pages = memo(function Pages({ book, shown }: { readonly book: Book; readonly shown: number }) {
  const pages = useMemo(() => pagesOf(book, shown), [book, shown]);
  return (
    <div className={`grid gap-3 ${book.sheets.length > 1 ? 'grid-cols-2 max-[560px]:grid-cols-1' : ''}`}>
      {pages.map((svg, i) => (
        <div key={i} className="sheet-seen" dangerouslySetInnerHTML={{ __html: svg }} />
      ))}
    </div>
  );
});

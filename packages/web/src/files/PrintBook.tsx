import normal from 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed.ttf?url';
import bold from 'dejavu-fonts-ttf/ttf/DejaVuSansCondensed-Bold.ttf?url';
import { type Settings } from '@crow-ladder/contract';
import { plural } from '@crow-ladder/core';
import { type Book, type Ink, PAPERS, type PaperId, type Sheet, type Tone } from '@crow-ladder/picture';
import { proxy, type Remote, wrap } from 'comlink';
import { memo, useEffect, useMemo, useState } from 'react';
import { BOOK_LABELS, BOOK_NECKS, type BookAsked, type BookChart, BOOKS, PER_PAGE } from '../model/book.ts';
import { Dialog } from '../ui/Dialog.tsx';
import { download, fileName } from '../ui/download.ts';
import { Picked } from '../ui/Picked.tsx';
import { Switch } from '../ui/Switch.tsx';
import { TaskSentence } from '../ui/TaskSentence.tsx';
import { type Printer } from '../workers/printing.ts';

interface PrintBookProps {
  readonly chart: BookChart;
  readonly settings: Settings;
  readonly onClose: () => void;
}

const PAPER_CHOICES = (Object.keys(PAPERS) as PaperId[]).map((id) => ({ id, name: PAPERS[id].name }));
const AT_FIRST: BookAsked = {
  what: 'ladder',
  paper: 'a4',
  perPage: '6',
  labels: 'degree',
  neck: 'lying',
  words: true,
};
/** Pages that are shown at once: more come on asking. */
const SHOWN = 4;

const start = (): Worker => new Worker(new URL('../workers/printer.ts', import.meta.url), { type: 'module' });

/** Diagrams of a chart as a book: its pages as they will come out, and as a file. */
export function PrintBook({ chart, settings, onClose }: PrintBookProps) {
  usePaperFaces();
  const [asked, setAsked] = useState(AT_FIRST);
  const ask = (part: Partial<BookAsked>): void => setAsked((it) => ({ ...it, ...part }));
  const [made, setMade] = useState<{ readonly asked: BookAsked; readonly book: Book } | null>(null);
  const [writing, setWriting] = useState<number | null>(null);
  const [failed, setFailed] = useState(false);
  const [remote, setRemote] = useState<Remote<Printer> | null>(null);
  const [shown, setShown] = useState(SHOWN);
  const [done, setDone] = useState(0);
  useEffect(() => {
    const worker = start();
    setRemote(() => wrap<Printer>(worker));
    return () => worker.terminate();
  }, []);
  useEffect(() => {
    if (!remote) return undefined;
    let wanted = true;
    setFailed(false);
    setDone(0);
    remote
      .book(
        chart,
        settings,
        asked,
        proxy((n: number) => wanted && setDone(n)),
      )
      .then(
        (book) => wanted && setMade({ asked, book }),
        () => wanted && setFailed(true),
      );
    return () => {
      wanted = false;
    };
  }, [remote, chart, settings, asked]);
  const book = made?.asked === asked ? made.book : null;
  const write = async (): Promise<void> => {
    if (!remote || !book) return;
    setWriting(0);
    try {
      const bytes = await remote.pdf(
        book,
        Date.now(),
        proxy((page: number) => setWriting(page)),
      );
      download(`${fileName(book.title)}.pdf`, new Blob([bytes], { type: 'application/pdf' }));
    } catch {
      setFailed(true);
    }
    setWriting(null);
  };
  return (
    <Dialog open onOpenChange={onClose} title="Print">
      <div className="flex flex-col gap-4">
        <TaskSentence
          acts={
            <button
              type="button"
              className="button button-strong"
              disabled={!book || writing !== null}
              onClick={() => void write()}
            >
              Save as PDF
            </button>
          }
        >
          Print{' '}
          <Picked
            name="Print"
            weight="first"
            value={asked.what}
            options={BOOKS}
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
          {asked.what !== 'position' && (
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
            onPick={(labels) => ask({ labels })}
          />
          , the neck{' '}
          <Picked
            name="Neck"
            value={asked.neck}
            options={BOOK_NECKS}
            then="."
            onPick={(neck) => ask({ neck })}
          />
        </TaskSentence>
        <Switch on={asked.words} onChange={(words) => ask({ words })}>
          With notes and tags of the chart
        </Switch>
        {failed && (
          <p role="alert" className="error">
            It could not be printed. Close this, and try once more.
          </p>
        )}
        <p role="status">
          {writing !== null
            ? `Writing page ${writing} of ${book?.sheets.length ?? 0}…`
            : book
              ? [`${plural(book.sheets.length, 'page')}, as they will come out.`, ...book.remarks].join(' ')
              : `Laying out diagram ${done + 1}…`}
        </p>
        {book && (
          <>
            <div className="grid grid-cols-2 gap-3 max-[560px]:grid-cols-1">
              {book.sheets.slice(0, shown).map((sheet, i) => (
                <Page
                  key={i}
                  sheet={sheet}
                  paper={book.paper}
                  name={`Page ${i + 1} of ${book.sheets.length}`}
                />
              ))}
            </div>
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

const GREY: Readonly<Record<Tone, string>> = {
  ink: '#000',
  soft: '#5a5a5a',
  faint: '#dedede',
  paper: '#fff',
};

/** The faces of the paper, once they are there. */
function usePaperFaces(): void {
  useEffect(() => {
    for (const [url, weight] of [
      [normal, '400'],
      [bold, '700'],
    ] as const) {
      const face = new FontFace('Paper', `url(${url})`, { weight });
      void face.load().then((it) => document.fonts.add(it));
    }
  }, []);
}

/** A page as it will come out. */
const Page = memo(function Page({
  sheet,
  paper,
  name,
}: {
  readonly sheet: Sheet;
  readonly paper: PaperId;
  readonly name: string;
}) {
  const { width, height } = PAPERS[paper];
  const all = useMemo(
    () =>
      sheet.map(({ x, y, scale, inks }, i) => (
        <g key={i} transform={`translate(${x} ${y}) scale(${scale})`}>
          {inks.map((ink, n) => (
            <Inked key={n} ink={ink} />
          ))}
        </g>
      )),
    [sheet],
  );
  return (
    <svg
      viewBox={`0 0 ${width} ${height}`}
      className="w-full border border-hair bg-white"
      role="img"
      aria-label={name}
      fontFamily="Paper, sans-serif"
    >
      {all}
    </svg>
  );
});
const ANCHORS = { left: 'start', center: 'middle', right: 'end' } as const;
const Inked = ({ ink }: { readonly ink: Ink }) =>
  'd' in ink ? (
    <path
      d={ink.d}
      transform={`translate(${ink.x} ${ink.y})`}
      fill={ink.fill ? GREY[ink.fill] : 'none'}
      stroke={ink.stroke ? GREY[ink.stroke] : 'none'}
      strokeWidth={ink.width}
      strokeDasharray={ink.dash.length ? ink.dash.join(' ') : undefined}
    />
  ) : (
    <text
      x={ink.x}
      y={ink.y}
      fontSize={ink.size}
      fontWeight={ink.bold ? 700 : 400}
      fill={GREY[ink.tone]}
      textAnchor={ANCHORS[ink.align]}
      dominantBaseline="central"
    >
      {ink.word}
    </text>
  );

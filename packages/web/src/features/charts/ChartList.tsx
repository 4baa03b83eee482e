import {
  aboutSaid,
  CHART_PAGE,
  type ChartQuery,
  type ChartSummary,
  type Settings,
} from '@crow-ladder/contract';
import { defaultRangeExtractor, useWindowVirtualizer, type VirtualItem } from '@tanstack/react-virtual';
import { Copy, Pencil, Trash2 } from 'lucide-react';
import { memo, useLayoutEffect, useRef, useState } from 'react';
import { Link } from 'react-router';
import { server } from '../../app/api.ts';
import { type Trouble } from '../../app/trouble.ts';
import { remove } from '../../app/deleting.ts';
import { useSettings } from '../../app/settings.ts';
import { useSend } from '../../app/state.ts';
import { daySaid } from '../../ui/dates.ts';
import { useNarrow } from '../../ui/useNarrow.ts';

/** How high a row is before it was drawn, in CSS pixels, and how many rows are drawn beyond those in sight. */
const ROW = { wide: 64, narrow: 132 };
const BEYOND = 6;

interface ListProps {
  readonly query: ChartQuery;
  /** How many charts were found. */
  readonly found: number;
  readonly onRename: (chart: ChartSummary) => void;
  readonly onCopy: (chart: ChartSummary) => Promise<void>;
}

/** The charts that were found, however many: those in sight are on the page, and the one that has the focus. */
export function ChartList({ query, found, onRename, onCopy }: ListProps) {
  const list = useRef<HTMLUListElement>(null);
  const [top, setTop] = useState(0);
  const [focused, setFocused] = useState<number | null>(null);
  const narrow = useNarrow();
  useLayoutEffect(() => {
    const place = (): void => setTop(list.current?.offsetTop ?? 0);
    place();
    const watcher = new ResizeObserver(place);
    watcher.observe(document.body);
    return () => watcher.disconnect();
  }, []);
  const rows = useWindowVirtualizer({
    count: found,
    estimateSize: () => (narrow ? ROW.narrow : ROW.wide),
    overscan: BEYOND,
    scrollMargin: top,
    rangeExtractor: (range) => {
      const shown = defaultRangeExtractor(range);
      const also = focused !== null && focused < found && !shown.includes(focused) ? [focused] : [];
      return [...shown, ...also].sort((a, b) => a - b);
    },
  });
  const items = rows.getVirtualItems();
  const pages = [...new Set(items.map(({ index }) => Math.floor(index / CHART_PAGE)))];
  return (
    <ul
      ref={list}
      className="relative border-t-2 border-ink"
      style={{ height: rows.getTotalSize() }}
      onFocus={(e) => setFocused(Number(e.target.closest('li')?.dataset['index']))}
      onBlur={() => setFocused(null)}
    >
      {pages.map((page) => (
        <PageRows
          key={page}
          page={page}
          query={query}
          found={found}
          items={items.filter(({ index }) => Math.floor(index / CHART_PAGE) === page)}
          top={top}
          measure={rows.measureElement}
          onRename={onRename}
          onCopy={onCopy}
        />
      ))}
    </ul>
  );
}

interface PageProps extends ListProps {
  readonly page: number;
  /** The rows of the page that are drawn. */
  readonly items: readonly VirtualItem[];
  /** Where the list begins on the page of the browser, in CSS pixels. */
  readonly top: number;
  readonly measure: (row: HTMLLIElement | null) => void;
}

/** Rows of one page of the answer, as soon as it is there. */
function PageRows({ page, query, found, items, top, measure, onRename, onCopy }: PageProps) {
  const { data, error, refetch } = server.useChartsQuery({ ...query, from: page * CHART_PAGE });
  const [settings] = useSettings();
  const waiting = error ? (
    <p className="error py-2.5">
      {(error as Trouble).message}{' '}
      <button type="button" className="button" onClick={() => void refetch()}>
        Try again
      </button>
    </p>
  ) : (
    '…'
  );
  return items.map(({ index, start }) => {
    const chart = data?.charts[index % CHART_PAGE];
    return (
      <li
        // A row that moves, as one that was renamed, keeps the focus that is in it.
        key={chart?.id ?? index}
        ref={measure}
        data-index={index}
        aria-setsize={found}
        aria-posinset={index + 1}
        className="absolute inset-x-0 top-0 min-h-16 border-b border-hair"
        style={{ transform: `translateY(${start - top}px)` }}
      >
        {chart ? <Row chart={chart} settings={settings} onRename={onRename} onCopy={onCopy} /> : waiting}
      </li>
    );
  });
}

interface RowProps extends Pick<ListProps, 'onRename' | 'onCopy'> {
  readonly chart: ChartSummary;
  readonly settings: Settings;
}

/** One chart of the list. */
const Row = memo(function Row({ chart, settings, onRename, onCopy }: RowProps) {
  const send = useSend();
  const { id, name, revision, tags, updatedAt } = chart;
  const act = (word: string, Icon: typeof Copy, work: () => void) => (
    <button
      type="button"
      className="button button-quiet"
      aria-label={`${word} ${name}`}
      title={word}
      onClick={work}
    >
      <Icon size={17} aria-hidden />
    </button>
  );
  return (
    <div className="flex flex-wrap items-center gap-x-4 gap-y-1 py-2.5">
      <div className="w-full min-w-64 [overflow-wrap:anywhere] sm:w-auto sm:grow sm:basis-0">
        <Link
          to={`/charts/${id}`}
          className="entry font-reading text-lg font-semibold underline decoration-line decoration-2 underline-offset-4"
        >
          {name}
        </Link>
        <p className="text-sm text-soft">{aboutSaid(chart.about, settings)}</p>
      </div>
      {tags.length > 0 && (
        <p className="max-w-full text-sm [overflow-wrap:anywhere] sm:max-w-64">{tags.join(', ')}</p>
      )}
      <time className="text-sm text-soft" dateTime={updatedAt}>
        {daySaid(updatedAt)}
      </time>
      <div className="ml-auto flex gap-1">
        {act('Rename', Pencil, () => onRename(chart))}
        {act('Copy', Copy, () => void onCopy(chart))}
        {act('Delete', Trash2, () => void send(remove({ kind: 'chart', id, name, revision })))}
      </div>
    </div>
  );
});

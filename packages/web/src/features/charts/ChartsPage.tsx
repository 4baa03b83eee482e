import {
  CHART_LIMITS,
  type ChartOrder,
  type ChartQuery,
  type ChartSummary,
  cutText,
  type Tagged,
} from '@crow-ladder/contract';
import { plural } from '@crow-ladder/core';
import { Plus, Printer, Trash2 } from 'lucide-react';
import { lazy, Suspense, useCallback, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { server } from '../../app/api.ts';
import { type Trouble } from '../../app/trouble.ts';
import { useUndelete } from '../../app/deleting.ts';
import { said } from '../../app/notice.ts';
import { useSettings } from '../../app/settings.ts';
import { useSend } from '../../app/state.ts';
import { useTold } from '../../app/useTold.ts';
import { Dialog } from '../../ui/Dialog.tsx';
import { Choice, Field } from '../../ui/fields.tsx';
import { useWords } from '../../ui/useWords.ts';
import { useTitle } from '../../ui/useTitle.ts';
import { Waiting } from '../../ui/Waiting.tsx';
import { ChartList } from './ChartList.tsx';
import { Drafts } from './Drafts.tsx';
import { UnreadableRows } from './UnreadableRows.tsx';

const PrintBook = lazy(() => import('../../files/PrintBook.tsx').then((m) => ({ default: m.PrintBook })));

const ORDERS = [
  { id: 'changed', name: 'last changed first' },
  { id: 'name', name: 'by name' },
  { id: 'key', name: 'by key' },
  { id: 'made', name: 'newest first' },
] as const satisfies readonly { readonly id: ChartOrder; readonly name: string }[];

/** Most characters of what is looked for, and how long the typing rests before it is looked for, in ms. */
const FIND = { most: 200, restMs: 200 };

/** All charts: found by words or tag, sorted, renamed, copied, deleted with the way back open. */
export function ChartsPage() {
  const [params, put, clear] = useWords();
  const navigate = useNavigate();
  const send = useSend();
  useUndelete();
  useTitle('Charts');
  const [create] = server.useCreateChartMutation();
  const [readChart] = server.useLazyChartQuery();
  const [renaming, setRenaming] = useState<ChartSummary | null>(null);
  const [printing, setPrinting] = useState(false);
  const [settings] = useSettings();
  const wanted = params.get('order');
  const order: ChartOrder = ORDERS.find((o) => o.id === wanted)?.id ?? 'changed';
  const unknown = wanted !== null && wanted !== order ? wanted : null;
  useEffect(() => {
    if (unknown !== null)
      send(
        said({ text: `Charts have no order “${cutText(unknown, 20)}”. Shown instead: last changed first.` }),
      );
  }, [unknown, send]);
  const tag = params.get('tag') ?? '';
  const find = params.get('find') ?? '';
  // The address and the search follow the typing once it rests; what is typed is shown at once.
  const [typed, setTyped] = useState<string | null>(null);
  useEffect(() => {
    if (typed === null || typed === find) return;
    const timer = setTimeout(() => put('find', typed), FIND.restMs);
    return () => clearTimeout(timer);
  });
  const query = useMemo((): ChartQuery => ({ find, tag, order }), [find, tag, order]);
  const { data, error, refetch } = server.useChartsQuery({ ...query, from: 0 });
  const [ask] = server.useLazyChartsQuery();
  const searched = find !== '' || tag !== '';
  useTold(searched && data ? `${plural(data.found, 'chart')} found.` : null);

  /** The first chart of what is searched for, as the field has it by now. */
  const openFirst = async (): Promise<void> => {
    const first = (await ask({ ...query, find: typed ?? find, from: 0 }, true)).data?.charts[0];
    if (first) void navigate(`/charts/${first.id}`);
  };
  const copy = useCallback(
    async ({ id }: ChartSummary): Promise<void> => {
      try {
        const { name, tags, notes, state } = await readChart(id).unwrap();
        const draft = { name: `${cutText(name, CHART_LIMITS.name - 7)} (copy)`, tags, notes, state };
        send(said({ text: `Made “${(await create(draft).unwrap()).name}”.` }));
      } catch (trouble) {
        send(said({ text: (trouble as Trouble).message }));
      }
    },
    [readChart, create, send],
  );

  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h1 className="text-2xl font-semibold">Charts</h1>
        <div className="flex gap-2">
          <button
            type="button"
            className="button button-quiet"
            disabled={!data?.found}
            onClick={() => setPrinting(true)}
          >
            <Printer size={17} aria-hidden /> Print
          </button>
          <Link to="/bin" className="button button-quiet">
            <Trash2 size={17} aria-hidden /> Bin
          </Link>
          <button type="button" className="button button-strong" onClick={() => void navigate('/new')}>
            <Plus size={17} aria-hidden /> New chart
          </button>
        </div>
      </div>
      <div className="on-screen flex flex-wrap gap-3">
        <input
          type="search"
          aria-label="Find charts"
          placeholder="Name, key, scale, tuning, tag or note"
          className="input sm:!w-80"
          maxLength={FIND.most}
          value={typed ?? find}
          onChange={(e) => setTyped(e.target.value)}
          onKeyDown={(e) => {
            if (e.key === 'Enter') void openFirst();
          }}
          onBlur={() => {
            if (typed !== null) put('find', typed);
            setTyped(null);
          }}
        />
        <Choice
          aria-label="Order"
          className="!w-auto"
          value={order}
          options={ORDERS}
          onChange={(v) => put('order', v === 'changed' ? null : v)}
        />
        <Tags tag={tag} onTag={(t) => put('tag', t)} />
      </div>
      <Drafts />
      {data && data.unreadable.length > 0 && <UnreadableRows rows={data.unreadable} />}
      {error ? (
        <p className="error">
          {(error as Trouble).message}{' '}
          <button type="button" className="button" onClick={() => void refetch()}>
            Try again
          </button>
        </p>
      ) : !data ? (
        <Waiting what="the charts" />
      ) : !data.all ? (
        <p>No charts yet. Begin one with “New chart”, or bring a backup back under Settings.</p>
      ) : !data.found ? (
        <p>
          No chart fits.{' '}
          <button
            type="button"
            className="button"
            onClick={() => {
              setTyped(null);
              clear();
            }}
          >
            Show all charts
          </button>
        </p>
      ) : (
        <ChartList
          key={`${find} ${tag} ${order}`}
          query={query}
          found={data.found}
          onRename={setRenaming}
          onCopy={copy}
        />
      )}
      <Suspense>
        {printing && (
          <PrintBook
            chart={null}
            charts={query}
            settings={settings}
            onPaper={null}
            onClose={() => setPrinting(false)}
          />
        )}
      </Suspense>
      {renaming && <Rename chart={renaming} onDone={() => setRenaming(null)} />}
    </div>
  );
}

/** How many tags are offered before all are asked for. */
const TAGS = 14;

/** The tags of the charts, the most used first. */
function Tags({ tag, onTag }: { tag: string; onTag: (tag: string | null) => void }) {
  const { data: tags = NONE } = server.useTagsQuery();
  const [all, setAll] = useState(false);
  const offered = all ? tags : tags.slice(0, TAGS);
  // The one that is chosen is among them, wherever it stands.
  const shown = offered.map((t) => t.tag);
  return (
    <div role="group" aria-label="Tags" className="flex flex-wrap gap-1.5">
      {(tag && !shown.includes(tag) ? [tag, ...shown] : shown).map((t) => (
        <button
          key={t}
          type="button"
          className="button max-w-full [overflow-wrap:anywhere]"
          aria-pressed={t === tag}
          onClick={() => onTag(t === tag ? null : t)}
        >
          {t}
        </button>
      ))}
      {tags.length > TAGS && (
        <button
          type="button"
          className="button button-quiet"
          aria-expanded={all}
          onClick={() => setAll(!all)}
        >
          {all ? 'Fewer tags' : `${tags.length - TAGS} more`}
        </button>
      )}
    </div>
  );
}
const NONE: readonly Tagged[] = [];

function Rename({ chart, onDone }: { chart: ChartSummary; onDone: () => void }) {
  const [name, setName] = useState(chart.name);
  const [readChart] = server.useLazyChartQuery();
  const [put] = server.useChangeChartMutation();
  const [trouble, setTrouble] = useState<Trouble | null>(null);
  const save = async (): Promise<void> => {
    try {
      const { tags, notes, state, revision } = await readChart(chart.id).unwrap();
      await put({ id: chart.id, change: { name, tags, notes, state, revision } }).unwrap();
      onDone();
    } catch (error) {
      setTrouble(error as Trouble);
    }
  };
  return (
    <Dialog open onOpenChange={onDone} title={`Rename ${chart.name}`}>
      <form
        className="flex flex-col gap-3"
        onSubmit={(e) => {
          e.preventDefault();
          void save();
        }}
      >
        <Field label="Name" error={name.trim() ? trouble?.message : 'Give the chart a name.'}>
          <input
            className="input"
            value={name}
            maxLength={CHART_LIMITS.name}
            onChange={(e) => setName(e.target.value)}
          />
        </Field>
        <button type="submit" className="button button-strong self-start" disabled={!name.trim()}>
          Rename
        </button>
      </form>
    </Dialog>
  );
}

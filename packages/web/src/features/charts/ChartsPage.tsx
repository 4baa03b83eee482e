import { type Chart, CHART_LIMITS, cutText } from '@crow-ladder/contract';
import { plural, tuningWords } from '@crow-ladder/core';
import { Copy, Pencil, Plus, Trash2 } from 'lucide-react';
import { useDeferredValue, useEffect, useMemo, useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { server, type Trouble } from '../../app/api.ts';
import { remove, useUndelete } from '../../app/deleting.ts';
import { said } from '../../app/notice.ts';
import { useSettings } from '../../app/settings.ts';
import { useSend } from '../../app/store.ts';
import { useTold } from '../../app/useTold.ts';
import { Dialog } from '../../ui/Dialog.tsx';
import { Choice, Field } from '../../ui/fields.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { Waiting } from '../../ui/Waiting.tsx';
import { Drafts } from './Drafts.tsx';
import { summaryOf } from './summary.ts';
import { UnreadableRows } from './UnreadableRows.tsx';

const ORDERS = [
  { id: 'changed', name: 'last changed first' },
  { id: 'name', name: 'by name' },
  { id: 'key', name: 'by key' },
  { id: 'made', name: 'newest first' },
] as const;
type Order = (typeof ORDERS)[number]['id'];

const COMPARE: Readonly<Record<Order, (a: Chart, b: Chart) => number>> = {
  changed: (a, b) => b.updatedAt.localeCompare(a.updatedAt),
  made: (a, b) => b.createdAt.localeCompare(a.createdAt),
  name: (a, b) => a.name.localeCompare(b.name),
  key: (a, b) => a.state.key.root.localeCompare(b.state.key.root) || a.name.localeCompare(b.name),
};

/** All charts: found by words or tag, sorted, renamed, copied, deleted with the way back open. */
export function ChartsPage() {
  const { data, error, refetch } = server.useChartsQuery();
  const { charts, unreadable } = data ?? {};
  const [query, setQuery] = useSearchParams();
  const navigate = useNavigate();
  const [settings] = useSettings();
  const send = useSend();
  useUndelete();
  useTitle('Charts');
  const [create] = server.useCreateChartMutation();
  const [renaming, setRenaming] = useState<Chart | null>(null);
  // The address follows the typing a moment later; what is typed is shown at once.
  const [typed, setTyped] = useState<string | null>(null);
  const wanted = query.get('order');
  const order: Order = ORDERS.find((o) => o.id === wanted)?.id ?? 'changed';
  const unknown = wanted !== null && wanted !== order ? wanted : null;
  useEffect(() => {
    if (unknown !== null)
      send(
        said({ text: `Charts have no order “${cutText(unknown, 20)}”. Shown instead: last changed first.` }),
      );
  }, [unknown, send]);
  const tag = query.get('tag');
  const words = useDeferredValue(query.get('find') ?? '');
  const put = (name: string, value: string | null): void =>
    setQuery(
      (q) => {
        if (value) q.set(name, value);
        else q.delete(name);
        return q;
      },
      { replace: true },
    );

  const tags = useMemo(() => [...new Set((charts ?? []).flatMap((c) => c.tags))].sort(), [charts]);
  const found = useMemo(() => {
    const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
    return (charts ?? [])
      .map((chart) => ({ chart, text: summaryOf(chart.state, settings) }))
      .filter(({ chart, text }) => {
        const { key, instrument } = chart.state;
        const all = [
          chart.name,
          text,
          key.root,
          chart.notes,
          ...chart.tags,
          instrument.name,
          ...tuningWords(instrument.tuning),
        ]
          .join(' ')
          .toLowerCase();
        return (!tag || chart.tags.includes(tag)) && wanted.every((w) => all.includes(w));
      })
      .sort((a, b) => COMPARE[order](a.chart, b.chart));
  }, [charts, words, tag, order, settings]);

  const searched = Boolean(words) || tag !== null;
  useTold(searched ? `${plural(found.length, 'chart')} found.` : null);

  const tell = (trouble: unknown): void => void send(said({ text: (trouble as Trouble).message }));
  const copy = async (chart: Chart): Promise<void> => {
    try {
      const made = await create({
        draft: {
          name: `${cutText(chart.name, CHART_LIMITS.name - 7)} (copy)`,
          tags: chart.tags,
          notes: chart.notes,
          state: chart.state,
        },
      }).unwrap();
      send(said({ text: `Made “${made.name}”.` }));
    } catch (trouble) {
      tell(trouble);
    }
  };

  return (
    <div className="flex flex-col gap-4">
      <div className="flex flex-wrap items-center justify-between gap-3">
        <h1 className="text-2xl font-semibold">Charts</h1>
        <div className="flex gap-2">
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
          value={typed ?? query.get('find') ?? ''}
          onChange={(e) => {
            setTyped(e.target.value);
            put('find', e.target.value);
          }}
          onBlur={() => setTyped(null)}
        />
        <Choice
          aria-label="Order"
          className="!w-auto"
          value={order}
          options={ORDERS}
          onChange={(v) => put('order', v === 'changed' ? null : v)}
        />
        <div role="group" aria-label="Tags" className="flex flex-wrap gap-1.5">
          {tags.map((t) => (
            <button
              key={t}
              type="button"
              className="button"
              aria-pressed={t === tag}
              onClick={() => put('tag', t === tag ? null : t)}
            >
              {t}
            </button>
          ))}
        </div>
      </div>
      {error ? (
        <p className="error">
          {(error as Trouble).message}{' '}
          <button type="button" className="button" onClick={() => void refetch()}>
            Try again
          </button>
        </p>
      ) : !charts ? (
        <Waiting what="the charts" />
      ) : !charts.length ? (
        <p>No charts yet. Begin one with “New chart”, or bring a backup back under Settings.</p>
      ) : !found.length ? (
        <p>
          No chart fits.{' '}
          <button
            type="button"
            className="button"
            onClick={() => {
              setTyped(null);
              setQuery({}, { replace: true });
            }}
          >
            Show all charts
          </button>
        </p>
      ) : (
        <ul className="border-t-2 border-ink">
          {found.map(({ chart, text }) => (
            <li
              key={chart.id}
              className="flex flex-wrap items-center gap-x-4 gap-y-1 border-b border-hair py-2.5"
            >
              <div className="w-full min-w-64 sm:w-auto sm:grow">
                <Link
                  to={`/charts/${chart.id}`}
                  className="entry font-reading text-lg font-semibold underline decoration-accent decoration-2 underline-offset-4"
                >
                  {chart.name}
                </Link>
                <p className="text-sm text-soft">{text}</p>
              </div>
              {chart.tags.length > 0 && <p className="text-sm">{chart.tags.join(', ')}</p>}
              <time className="text-sm text-soft" dateTime={chart.updatedAt}>
                {new Date(chart.updatedAt).toLocaleDateString(undefined, {
                  day: 'numeric',
                  month: 'short',
                  year: 'numeric',
                })}
              </time>
              <div className="ml-auto flex gap-1">
                <button
                  type="button"
                  className="button button-quiet"
                  aria-label={`Rename ${chart.name}`}
                  title="Rename"
                  onClick={() => setRenaming(chart)}
                >
                  <Pencil size={17} aria-hidden />
                </button>
                <button
                  type="button"
                  className="button button-quiet"
                  aria-label={`Copy ${chart.name}`}
                  title="Copy"
                  onClick={() => void copy(chart)}
                >
                  <Copy size={17} aria-hidden />
                </button>
                <button
                  type="button"
                  className="button button-quiet"
                  aria-label={`Delete ${chart.name}`}
                  title="Delete"
                  onClick={() => void send(remove({ kind: 'chart', id: chart.id, name: chart.name }))}
                >
                  <Trash2 size={17} aria-hidden />
                </button>
              </div>
            </li>
          ))}
        </ul>
      )}
      <Drafts />
      {unreadable && unreadable.length > 0 && <UnreadableRows rows={unreadable} />}
      {renaming && <Rename chart={renaming} onDone={() => setRenaming(null)} />}
    </div>
  );
}

function Rename({ chart, onDone }: { chart: Chart; onDone: () => void }) {
  const [name, setName] = useState(chart.name);
  const [put, { error }] = server.useChangeChartMutation();
  const save = async (): Promise<void> => {
    const { tags, notes, state, revision } = chart;
    const done = await put({ id: chart.id, change: { name, tags, notes, state, revision } });
    if (!done.error) onDone();
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
        <Field
          label="Name"
          error={name.trim() ? (error as Trouble | undefined)?.message : 'Give the chart a name.'}
        >
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

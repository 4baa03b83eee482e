import { CHART_LIMITS } from '@crow-ladder/contract';
import { type ComponentProps, useState } from 'react';
import { Link, useNavigate } from 'react-router';
import { LAST_CHANGED, server } from '../app/api.ts';
import { useFiles } from '../files/asked.ts';
import { useSessionId } from '../sessions/useSession.ts';
import { Field } from '../ui/fields.tsx';
import { useTyped } from '../ui/useTyped.ts';
import { History } from './History.tsx';
import { ROW, ShareRows } from './ShareRows.tsx';

/** As many charts as are offered at once: the others come as their names are typed. */
const OFFERED = 5;

interface ChartMenuProps extends ComponentProps<typeof ShareRows> {
  /** Null as long as it has none. */
  readonly name: string | null;
  readonly onRename: (name: string) => void;
  readonly onTyping: (typing: boolean) => void;
  /** Begins a new chart from this one; null where this one is new. */
  readonly onNew: (() => void) | null;
  readonly onNotes: () => void;
  /** Null where there is nothing to delete yet. */
  readonly onDelete: (() => void) | null;
}

/** Everything that is done with a chart as a whole. */
export function ChartMenu({ name, onRename, onTyping, onNew, onNotes, onDelete, ...share }: ChartMenuProps) {
  const { onClose } = share;
  const [past, setPast] = useState(false);
  const files = useFiles();
  // A chart keeps its name where none is typed.
  const called = useTyped(
    name ?? '',
    (text) => {
      if (text.trim()) onRename(text.trim());
      return true;
    },
    null,
    onTyping,
  );
  const row = (said: string, act: () => void) => (
    <button
      type="button"
      className={`${ROW} font-semibold`}
      onClick={() => {
        onClose();
        act();
      }}
    >
      {said}
    </button>
  );
  return (
    <>
      {name !== null && (
        <div className="px-2 pb-2">
          <Field label="Name of the chart">
            <input
              className="input"
              value={called.text}
              maxLength={CHART_LIMITS.name}
              onChange={(e) => called.onText(e.target.value)}
              onBlur={called.onBlur}
              onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
            />
          </Field>
        </div>
      )}
      {row('Notes and tags', onNotes)}
      {onNew && row('New from this', onNew)}
      {row('Tune the guitar', () => files.tune())}
      {row('Learn this', () => files.learn())}
      {row('Open a file', () => files.open())}
      {row('Save as', () => files.save())}
      {row('Print', () => files.print())}
      <button
        type="button"
        className={`${ROW} font-semibold`}
        aria-expanded={past}
        onClick={() => setPast(!past)}
      >
        History
      </button>
      {past && <History />}
      <ShareRows {...share} />
      <Another onClose={onClose} />
      {onDelete && row('Delete this chart', onDelete)}
    </>
  );
}

/** Another chart by its name, or by what is in it, as it is typed. */
function Another({ onClose }: { readonly onClose: () => void }) {
  const navigate = useNavigate();
  const [find, setFind] = useState('');
  const mine = useSessionId();
  const found = server.useChartsQuery({ ...LAST_CHANGED, find }).data?.charts ?? [];
  const charts = found.filter(({ id }) => id !== mine).slice(0, OFFERED);
  const to = (id: string): string => `/charts/${id}`;
  return (
    <div className="border-y border-hair px-2 py-2">
      <Field label="Open another chart">
        <input
          type="search"
          className="input"
          value={find}
          onChange={(e) => setFind(e.target.value)}
          onKeyDown={(e) => {
            if (e.key !== 'Enter' || !charts[0]) return;
            onClose();
            void navigate(to(charts[0].id));
          }}
        />
      </Field>
      <ul aria-label="Charts found">
        {charts.map(({ id, name }) => (
          <li key={id}>
            <Link to={to(id)} className={ROW} onClick={onClose}>
              {name}
            </Link>
          </li>
        ))}
      </ul>
      {find && !charts.length && <p className="py-1 text-sm text-soft">No chart is found so.</p>}
    </div>
  );
}

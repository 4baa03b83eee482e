import { CHART_LIMITS, type ChartDraft } from '@crow-ladder/contract';
import { Copy, Save } from 'lucide-react';
import { memo, useState } from 'react';
import { useStore } from 'react-redux';
import { useNavigate } from 'react-router';
import { server, type Trouble } from '../../app/api.ts';
import { changed, keptMine, saved, tookTheirs } from '../../app/workbench.ts';
import { said, type State, useApp, useSend } from '../../app/store.ts';
import { stateToQuery } from '../../app/stateUrl.ts';
import { Dialog } from '../../ui/Dialog.tsx';
import { Field } from '../../ui/fields.tsx';
import { nameOfMine, type SaveChart } from './useAutosave.ts';
import { useTyped } from './useTyped.ts';

const STATES = {
  unsaved: 'Not saved yet',
  saved: 'Saved',
  pending: 'Changed…',
  saving: 'Saving…',
  failed: 'Not saved',
  conflict: 'Changed elsewhere',
} as const;

interface SaveBarProps {
  readonly save: SaveChart;
  readonly naming: boolean;
  readonly onNaming: (open: boolean) => void;
}

/** The chart's name and how it stands to the server; saving, trying again, and settling conflicts. */
export const SaveBar = memo(function SaveBar({ save, naming, onNaming }: SaveBarProps) {
  const send = useSend();
  const navigate = useNavigate();
  const store = useStore<State>();
  const chartId = useApp((s) => s.workbench.chartId);
  const chartName = useApp((s) => s.workbench.draft.name);
  const state = useApp((s) => s.workbench.save);
  const trouble = useApp((s) => s.workbench.trouble);
  const theirs = useApp((s) => s.workbench.theirs);
  const draft = (): ChartDraft => store.getState().workbench.draft;
  const [create] = server.useCreateChartMutation();
  const [name, setName] = useState('');
  // A chart keeps its name where none is typed.
  const called = useTyped(chartName, (text) => {
    if (text.trim()) send(changed({ name: text.trim() }));
    return true;
  });

  const saveAs = async (): Promise<void> => {
    const id = await save({ name: name.trim() });
    if (!id) return;
    onNaming(false);
    send(said({ text: `Saved as “${name.trim()}”.` }));
    await navigate(`/charts/${id}`);
  };
  /** Makes a chart of its own from the work at hand, and goes on with that. */
  const branch = async (called: string): Promise<void> => {
    try {
      const sent = draft();
      const copy = await create({ ...sent, name: called }).unwrap();
      send(saved({ chart: copy, sent, chartId }));
      send(said({ text: `Your version is kept as “${copy.name}”.` }));
      await navigate(`/charts/${copy.id}`);
    } catch (error) {
      send(said({ text: (error as Trouble).message }));
    }
  };
  return (
    <div className="flex flex-wrap items-center gap-2">
      {chartId === null ? (
        <button type="button" className="button button-strong" onClick={() => onNaming(true)}>
          <Save size={16} aria-hidden /> Save chart
        </button>
      ) : (
        <input
          aria-label="Name of the chart"
          value={called.text}
          maxLength={CHART_LIMITS.name}
          className="max-w-full min-w-24 border-b-2 [field-sizing:content] border-transparent bg-transparent px-1 font-reading text-lg font-semibold hover:border-line focus:border-accent"
          onChange={(e) => called.onText(e.target.value)}
          onBlur={called.onBlur}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
      )}
      <span
        role="status"
        className={state === 'failed' || state === 'conflict' ? 'error' : 'text-sm text-soft'}
      >
        {STATES[state]}
      </span>
      {state === 'failed' && (
        <>
          <span className="text-sm">{trouble?.message}</span>
          {trouble?.code === 'not-found' ? (
            <button type="button" className="button" onClick={() => void branch(draft().name)}>
              Keep it as a new chart
            </button>
          ) : (
            <button
              type="button"
              className="button"
              onClick={() => (chartId === null ? onNaming(true) : void save())}
            >
              Try again
            </button>
          )}
        </>
      )}
      {chartId !== null && (
        <button
          type="button"
          className="button button-quiet"
          onClick={() => void navigate(`/new?${stateToQuery(draft().state)}`)}
        >
          <Copy size={16} aria-hidden /> <span className="max-sm:sr-only">New from this</span>
        </button>
      )}
      <Dialog open={naming} onOpenChange={onNaming} title="Save the chart">
        <form
          className="flex flex-col gap-3"
          onSubmit={(e) => {
            e.preventDefault();
            if (name.trim()) void saveAs();
          }}
        >
          <Field label="Name" error={state === 'failed' ? trouble?.message : undefined}>
            <input
              className="input"
              value={name}
              maxLength={CHART_LIMITS.name}
              onChange={(e) => setName(e.target.value)}
              autoFocus
            />
          </Field>
          <button
            type="submit"
            className="button button-strong self-start"
            disabled={!name.trim() || state === 'saving'}
          >
            {state === 'failed' ? 'Try again' : 'Save'}
          </button>
        </form>
      </Dialog>
      <Dialog
        open={state === 'conflict' && theirs !== null}
        onOpenChange={() => undefined}
        title="This chart was changed elsewhere"
        text="Another tab or device saved it after you opened it here. Nothing is lost: choose what stands."
      >
        <div className="flex flex-wrap gap-2">
          <button
            type="button"
            className="button button-strong"
            onClick={() => void branch(nameOfMine(draft().name))}
          >
            Keep both
          </button>
          <button type="button" className="button" onClick={() => send(tookTheirs())}>
            Take theirs
          </button>
          <button type="button" className="button" onClick={() => send(keptMine())}>
            Keep mine
          </button>
        </div>
      </Dialog>
    </div>
  );
});

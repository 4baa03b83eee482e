import { CHART_LIMITS, type ChartDraft } from '@crow-ladder/contract';
import { Copy, Save } from 'lucide-react';
import { lazy, memo, Suspense } from 'react';
import { useStore } from 'react-redux';
import { Link, useNavigate } from 'react-router';
import { said } from '../app/notice.ts';
import { begin, openChart } from '../sessions/opening.ts';
import { keepAsChart, nameOfMine, saveSession } from '../sessions/saving.ts';
import { dropped, isHeldUp, isUnnamed, keptMine, named, tookTheirs } from '../sessions/sessions.ts';
import { type State, useAll, useSendAll } from '../sessions/state.ts';
import { sessionOn, useChange, useSession, useSessionId, useTyping } from '../sessions/useSession.ts';
import { useFetchedSoon } from '../ui/later.ts';
import { type SceneSource } from '../ui/neck/source.ts';
import { useTyped } from '../ui/useTyped.ts';
import { Share } from './Share.tsx';

const loadDialog = () => import('./SaveDialog.tsx');
const SaveDialog = lazy(() => loadDialog().then((m) => ({ default: m.SaveDialog })));

const Conflict = lazy(() => import('../ui/Conflict.tsx').then((m) => ({ default: m.Conflict })));

const STATES = {
  unsaved: 'Not saved yet',
  saved: 'Saved',
  pending: 'Changed…',
  saving: 'Saving…',
  failed: 'Not saved',
  conflict: 'Changed elsewhere',
  apart: 'Of another library',
} as const;

interface SaveBarProps {
  readonly naming: boolean;
  readonly onNaming: (open: boolean) => void;
  /** What the neck shows. */
  readonly source: SceneSource;
  /** The task that the page goes on with. */
  readonly taskPath: string;
}

/** The chart's name and how it stands to the server; saving, trying again, and settling conflicts. */
export const SaveBar = memo(function SaveBar({ naming, onNaming, source, taskPath }: SaveBarProps) {
  const send = useSendAll();
  const navigate = useNavigate();
  const store = useStore<State>();
  const id = useSessionId();
  const unnamed = useSession(isUnnamed);
  const isNew = useSession((s) => s.revision === 0);
  const chartName = useSession((s) => s.draft.name);
  const state = useSession((s) => s.save);
  const trouble = useSession((s) => s.trouble);
  const theirs = useSession((s) => s.theirs);
  const of = useSession((s) => s.of);
  const keeps = useAll((s) => s.standing.keeps);
  const isOff = useSession(isHeldUp);
  const draft = (): ChartDraft => sessionOn(store.getState(), id).draft;
  const change = useChange();
  const onTyping = useTyping();
  useFetchedSoon(loadDialog);
  // A chart keeps its name where none is typed.
  const called = useTyped(
    chartName,
    (text) => {
      if (text.trim()) change({ name: text.trim() });
      return true;
    },
    null,
    onTyping,
  );

  const saveAs = async (name: string): Promise<void> => {
    send(named({ id, name }));
    if (!(await send(saveSession(id)))) return;
    onNaming(false);
    send(said({ text: `Saved as “${name}”.` }));
  };
  /** Makes a chart of its own from the work at hand, and goes on with that. */
  const branch = async (called: string): Promise<void> => {
    const copy = send(keepAsChart({ ...draft(), name: called }));
    send(said({ text: `Your version is kept as “${called}”.` }));
    await navigate(`/charts/${copy}/${taskPath}`);
    send(dropped([id]));
  };
  /** Gives up what was made here on another library, for what this one has. */
  const letGo = async (): Promise<void> => {
    const mine = draft();
    send(dropped([id]));
    if (!(await send(openChart(id)))) return;
    // This library has none.
    await navigate(`/charts/${send(keepAsChart(mine))}/${taskPath}`);
  };
  return (
    <div className="flex flex-wrap items-center gap-2">
      {unnamed ? (
        <button type="button" className="button button-strong" onClick={() => onNaming(true)}>
          <Save size={16} aria-hidden /> Save chart
        </button>
      ) : (
        <input
          aria-label="Name of the chart"
          value={called.text}
          maxLength={CHART_LIMITS.name}
          className="titled max-w-full min-w-24 border-b-2 [field-sizing:content] border-transparent bg-transparent px-1 font-reading text-lg font-semibold hover:border-line focus:border-accent"
          onChange={(e) => called.onText(e.target.value)}
          onBlur={called.onBlur}
          onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        />
      )}
      <span role="status" className={isOff ? 'error' : 'text-sm text-soft'}>
        {STATES[state]}
      </span>
      {unnamed && of !== null && (
        <span className="text-sm">
          It came in an address of{' '}
          <Link to={`/charts/${of}`} className="underline">
            a saved chart
          </Link>
          , which stays as it is.
        </span>
      )}
      {!keeps && state !== 'saved' && (
        <span className="text-sm">
          This browser keeps nothing (it is private, or its disk is full): leave this page open until the
          chart is saved.
        </span>
      )}
      {(state === 'failed' || state === 'apart') && (
        <>
          <span className="text-sm">{trouble?.message}</span>
          {state === 'apart' || trouble?.code === 'not-found' ? (
            <>
              <button type="button" className="button" onClick={() => void branch(draft().name)}>
                Keep it as a new chart
              </button>
              {state === 'apart' && (
                <button type="button" className="button" onClick={() => void letGo()}>
                  Show what is saved
                </button>
              )}
            </>
          ) : (
            <button type="button" className="button" onClick={() => void send(saveSession(id))}>
              Try again
            </button>
          )}
        </>
      )}
      {!isNew && (
        <button
          type="button"
          className="button button-quiet"
          onClick={() => void navigate(`/charts/${send(begin(draft(), { touched: true }))}/${taskPath}`)}
        >
          <Copy size={16} aria-hidden /> <span className="max-sm:sr-only">New from this</span>
        </button>
      )}
      <Share source={source} draft={draft} taskPath={taskPath} />
      {naming && (
        <Suspense>
          <SaveDialog
            trouble={state === 'failed' ? (trouble?.message ?? null) : null}
            saving={state === 'saving'}
            onSave={(name) => void saveAs(name)}
            onOpenChange={onNaming}
          />
        </Suspense>
      )}
      {state === 'conflict' && theirs !== null && (
        <Suspense>
          <Conflict
            what="chart"
            onBoth={() => void branch(nameOfMine(draft().name))}
            onTheirs={() => send(tookTheirs(id))}
            onMine={() => send(keptMine(id))}
          />
        </Suspense>
      )}
    </div>
  );
});

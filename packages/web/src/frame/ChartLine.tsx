import { type ChartDraft } from '@crow-ladder/contract';
import { ChevronDown, Redo2, Save, Undo2 } from 'lucide-react';
import { lazy, memo, Suspense, useEffect, useRef, useState } from 'react';
import { useStore } from 'react-redux';
import { Link, useNavigate } from 'react-router';
import { remove } from '../app/deleting.ts';
import { said } from '../app/notice.ts';
import { InLine } from '../ui/places.tsx';
import { begin, openChart } from '../sessions/opening.ts';
import { keepAsChart, nameOfMine, saveSession } from '../sessions/saving.ts';
import {
  dropped,
  isHeldUp,
  isUnnamed,
  keptMine,
  named,
  redone,
  tookTheirs,
  undone,
} from '../sessions/sessions.ts';
import { type State, useAll, useSendAll } from '../sessions/state.ts';
import { sessionOn, useChange, useSession, useSessionId, useTyping } from '../sessions/useSession.ts';
import { useFetchedSoon } from '../ui/later.ts';
import { Popup } from '../ui/Popup.tsx';

const loadDialog = () => import('./SaveDialog.tsx');
const SaveDialog = lazy(() => loadDialog().then((m) => ({ default: m.SaveDialog })));

const loadMenu = () => import('./ChartMenu.tsx');
const ChartMenu = lazy(() => loadMenu().then((m) => ({ default: m.ChartMenu })));
const NotesDialog = lazy(() => import('./NotesDialog.tsx').then((m) => ({ default: m.NotesDialog })));
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

interface ChartLineProps {
  readonly naming: boolean;
  readonly onNaming: (open: boolean) => void;
  /** What the neck shows. */
  /** The task that the page goes on with. */
  readonly taskPath: string;
}

/** The chart's part of the line on top: its name as a menu, how it is saved, undo and redo; below it what went wrong, and the ways out. */
export const ChartLine = memo(function ChartLine({ naming, onNaming, taskPath }: ChartLineProps) {
  const send = useSendAll();
  const navigate = useNavigate();
  const gone = useRef<() => void>(null);
  useEffect(() => () => gone.current?.(), []);
  const store = useStore<State>();
  const id = useSessionId();
  const unnamed = useSession(isUnnamed);
  const isNew = useSession((s) => s.revision === 0);
  const chartName = useSession((s) => s.draft.name);
  const called = chartName || 'New chart';
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
  useFetchedSoon(loadMenu);

  const saveAs = async (name: string): Promise<void> => {
    send(named({ id, name }));
    if (!(await send(saveSession(id)))) return;
    onNaming(false);
    send(said({ text: `Saved as “${name}”.` }));
  };
  /** Goes elsewhere, and waits until this chart is no longer shown: only then is it taken away. */
  const leave = (to: string): Promise<void> =>
    new Promise((done) => {
      gone.current = done;
      void navigate(to);
    });
  /** Makes a chart of its own from the work at hand, and goes on with that. */
  const branch = async (name: string): Promise<void> => {
    const copy = send(keepAsChart({ ...draft(), name }));
    send(said({ text: `Your version is kept as “${name}”.` }));
    await leave(`/charts/${copy}/${taskPath}`);
    send(dropped([id]));
  };
  /** Gives up what was made here on another library, for what this one has. */
  const letGo = async (): Promise<void> => {
    const mine = draft();
    send(dropped([id]));
    if (!(await send(openChart(id)))) return;
    // This library has none.
    void navigate(`/charts/${send(keepAsChart(mine))}/${taskPath}`);
  };
  const [menu, setMenu] = useState(false);
  const [notes, setNotes] = useState(false);
  const past = useSession((s) => s.past.length > 0);
  const future = useSession((s) => s.future.length > 0);
  const startNew = (): void =>
    void navigate(`/charts/${send(begin(draft(), { touched: true }))}/${taskPath}`);
  /** Into the bin, once what was changed last is kept with it. */
  const discard = async (): Promise<void> => {
    await send(saveSession(id));
    const { revision, draft: it } = sessionOn(store.getState(), id);
    await leave('/charts');
    await send(remove({ kind: 'chart', id, name: it.name, revision }));
  };
  const parts = { draft, taskPath, onClose: () => setMenu(false) };
  const top = (
    <>
      <Popup
        name="Chart"
        label={`Chart: ${called}`}
        buttonClass="titled chart-name"
        panelClass="flex max-h-[80vh] w-[min(22rem,calc(100vw-20px))] flex-col overflow-auto p-2"
        open={menu}
        onOpenChange={setMenu}
        body={
          <Suspense fallback="…">
            <ChartMenu
              {...parts}
              name={unnamed ? null : chartName}
              onRename={(name) => change({ name })}
              onTyping={onTyping}
              onNew={isNew ? null : startNew}
              onNotes={() => setNotes(true)}
              onDelete={isNew ? null : () => void discard()}
            />
          </Suspense>
        }
      >
        <span className="truncate">{called}</span> <ChevronDown size={15} aria-hidden />
      </Popup>
      {unnamed && (
        <button type="button" className="button button-strong" onClick={() => onNaming(true)}>
          <Save size={16} aria-hidden />
          <span>
            Save<span className="max-[760px]:sr-only"> chart</span>
          </span>
        </button>
      )}
      <span role="status" className={isOff ? 'error' : 'text-sm text-soft'}>
        {STATES[state]}
      </span>
      <span className="flex gap-1">
        {(
          [
            ['Undo', past, undone, Undo2],
            ['Redo', future, redone, Redo2],
          ] as const
        ).map(([name, can, turn, Icon]) => (
          <button
            key={name}
            type="button"
            className="button button-quiet"
            aria-disabled={!can}
            aria-label={name}
            onClick={() => send(turn(id))}
          >
            <Icon size={17} aria-hidden />
          </button>
        ))}
      </span>
    </>
  );
  const telling = (unnamed && of !== null) || (!keeps && state !== 'saved');
  return (
    <>
      <InLine>{top}</InLine>
      {(telling || state === 'failed' || state === 'apart') && (
        <div className="flex flex-wrap items-center gap-2 border-l-4 border-accent pl-3">
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
        </div>
      )}
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
      {notes && (
        <Suspense>
          <NotesDialog onClose={() => setNotes(false)} />
        </Suspense>
      )}
    </>
  );
});

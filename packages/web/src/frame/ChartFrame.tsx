import { type ChartDraft, LABELS, refWord } from '@crow-ladder/contract';
import { refOf } from '@crow-ladder/core';
import {
  lazy,
  memo,
  Suspense,
  useCallback,
  useEffect,
  useLayoutEffect,
  useMemo,
  useRef,
  useState,
} from 'react';
import { useStore } from 'react-redux';
import { useLocation, useNavigate } from 'react-router';
import { useKnown } from '../app/known.ts';
import { said, told } from '../app/notice.ts';
import { settingsIn, useSettings } from '../app/settings.ts';
import { useShortcuts } from '../app/shortcuts.ts';
import { looked, usedScale } from '../app/state.ts';
import { lookOf } from '../model/figure.ts';
import { knownPositions } from '../model/known.ts';
import { around, fretsShown, type Model, modelOf, moveKey } from '../model/model.ts';
import { type Change, layoutFollowed, stepRoot, withFront } from '../model/moves.ts';
import { saveSession } from '../sessions/saving.ts';
import { changed, isUnnamed, redone, sessionOf, undone } from '../sessions/sessions.ts';
import { type State, type Store, useSendAll } from '../sessions/state.ts';
import { useAllLater } from '../sessions/useAllLater.ts';
import { sessionOn, useSession, useSessionId } from '../sessions/useSession.ts';
import { FilesHere } from '../files/FilesHere.tsx';
import { DockProvider } from '../ui/places.tsx';
import { focusAfterClosing } from '../ui/focus.ts';
import { afterPaint, useFetchedSoon } from '../ui/later.ts';
import { type NeckHandle } from '../ui/neck/Neck.tsx';
import { useNarrow } from '../ui/useNarrow.ts';
import { useTitle } from '../ui/useTitle.ts';
import { Waiting } from '../ui/Waiting.tsx';
import { ChartNeck } from './ChartNeck.tsx';
import { chartSource } from './chartSource.ts';
import { Ladder } from './Ladder.tsx';
import { ChartLine } from './ChartLine.tsx';
import { NeckCorner } from './NeckCorner.tsx';
import { type Part, Sentence } from './sentence/Sentence.tsx';
import { Telling } from './Telling.tsx';
import { type AnyTask, type TaskEntry } from '../task/task.ts';
import { TaskRow } from './TaskRow.tsx';
import { useTasks } from './tasks.ts';
import { loadTask, useTask } from './useTask.ts';
import { useUpright } from './useUpright.ts';

// What not every visit needs is loaded once the neck is there.
const Hints = lazy(() => import('./Hints.tsx').then((m) => ({ default: m.Hints })));
const Dock = lazy(() => import('./Dock.tsx').then((m) => ({ default: m.Dock })));

const ADDRESS_MS = 120;
const NONE: readonly never[] = [];

interface AddressProps {
  readonly draft: ChartDraft;
  /** Whether the chart has no other place yet than its address. */
  readonly carried: boolean;
  /** The saved chart whose address it came in. */
  readonly of: string | null;
  readonly task: AnyTask | null;
  readonly params: unknown;
}

/**
 * Keeps the address: the position in front, the task's own parameters, and the whole state of a chart that was not touched yet. It
 * is written past the router, which would drop a page that is still being loaded for it.
 */
function Address({ draft, carried, of, task, params }: AddressProps) {
  const { pathname } = useLocation();
  const { front } = draft.state;
  useEffect(() => {
    // What the address says of a task that is still being loaded is read by it.
    if (!task) return;
    let wanted = true;
    const write = async (): Promise<void> => {
      const next = carried ? await carriedQuery(draft, of) : new URLSearchParams();
      // The page may be on its way to another address, which is none of this one’s business.
      if (!wanted || window.location.pathname !== pathname) return;
      if (front) next.set('front', refWord(front));
      for (const [name, value] of Object.entries(task.params.write(params)))
        if (value !== null) next.set(name, value);
      const query = next.toString();
      if (query !== new URLSearchParams(window.location.search).toString())
        window.history.replaceState(window.history.state, '', pathname + (query && `?${query}`));
    };
    const timer = setTimeout(() => void write(), ADDRESS_MS);
    return () => {
      wanted = false;
      clearTimeout(timer);
    };
  }, [draft, front, carried, of, task, params, pathname]);
  return null;
}
/** A chart in the words of an address, with the one that it came from. */
async function carriedQuery(draft: ChartDraft, of: string | null): Promise<URLSearchParams> {
  const { draftToQuery } = await import('../model/addressWords.ts');
  const query = draftToQuery(draft);
  if (of !== null) query.set('of', of);
  return query;
}

/** Why the position in front is another one than the player might expect; nothing where it is the one expected. */
const FrontNote = memo(function FrontNote({ model }: { model: Model }) {
  const { positions, front, state, names } = model;
  if (!positions.ok) return <p className="error">{positions.error.message}</p>;
  if (!front || front.by === 'choice' || (front.by === 'root' && !state.front)) return null;
  const inFront = `In front is ${names()[front.position.index]}`;
  return (
    <p className="text-sm">
      {front.by === 'root'
        ? `The position that was asked for, from fret ${state.front!.low}, is not in this layout here. ${inFront}, the one through the root.`
        : `No position of this layout goes through the root on string ${state.at.string} fret ${state.at.fret}. ${inFront}, the nearest one that holds a root.`}
    </p>
  );
});

interface ChartFrameProps {
  readonly entry: TaskEntry;
  /** The chart's part of the address. */
  readonly base: string;
}

/** An open chart: name, sentence, neck and ladder, and the task in front. The neck comes first; the rest follows once it is drawn. */
export const ChartFrame = memo(function ChartFrame({ entry, base }: ChartFrameProps) {
  const id = useSessionId();
  const send = useSendAll();
  const store = useStore() as unknown as Store;
  const tasks = useTasks();
  // One after the other, so that each leaves the page free between.
  const fetchAll = useCallback(async () => {
    for (const entry of tasks) await loadTask(entry);
  }, [tasks]);
  useFetchedSoon(fetchAll);
  const navigate = useNavigate();
  const [settings, changeSettings] = useSettings();
  const [known] = useKnown();
  const name = useSession((s) => s.draft.name);
  const [open, setOpen] = useState<Part | null>(null);
  const [naming, setNaming] = useState(false);
  const [end, setEnd] = useState<{ readonly text: string } | null>(null);
  const neckRef = useRef<NeckHandle>(null);
  const narrow = useNarrow();
  const { task, params, onParams, ask } = useTask(entry);
  const [place, setPlace] = useState<HTMLElement | null>(null);
  const strings = useSession((s) => s.draft.state.instrument.tuning.length);
  const long = useUpright(narrow ? place : null, strings);
  const [source] = useState(() => chartSource(store, id, { task, params, narrow, long }));
  useLayoutEffect(() => source.tell({ task, params, narrow, long }), [source, task, params, narrow, long]);
  const [sheet, setSheet] = useState(false);
  const [slot, setSlot] = useState<HTMLElement | null>(null);

  const select = useCallback((s: State) => sessionOf(s, id), [id]);
  const { draft, of } = useAllLater(select);
  const { state } = draft;
  const model = modelOf(state, settings);
  const view = useAllLater(viewOf);
  const zoom = fretsShown(model, view, narrow, () => task?.frets?.(model, params));
  const [from, to] = zoom ?? [];
  const look = useMemo(
    () => lookOf(state.instrument, settings, from === undefined ? null : [from, to!], narrow, long),
    [state.instrument, settings, from, to, narrow, long],
  );

  const now = useCallback((): Model => {
    const at = store.getState();
    return modelOf(sessionOn(at, id).draft.state, settingsIn(at));
  }, [store, id]);
  const onChange = useCallback(
    (change: Change) => {
      const before = sessionOn(store.getState(), id).draft.state;
      const after = change(before);
      if (after === before) return;
      send(changed({ id, part: { state: after } }));
      const why = layoutFollowed(before, after);
      if (why) send(said({ text: why }));
      if (after.key.scale !== before.key.scale) afterPaint(() => send(usedScale(after.key.scale)));
    },
    [send, store, id],
  );
  const onChoose = useCallback(
    (index: number) => {
      const { positions } = now();
      const position = positions.ok ? positions.value[index] : undefined;
      if (positions.ok && position) onChange((s) => withFront(s, refOf(positions.value, position)));
    },
    [now, onChange],
  );
  const pickOnNeck = useCallback(() => {
    send(told('Pick a spot on the neck: click it, or walk to it with the arrow keys and press Enter.'));
    focusAfterClosing(() => {
      neckRef.current?.focus();
      return document.activeElement as SVGElement;
    });
  }, [send]);
  useTitle(`${name || 'New chart'}, ${entry.name}`);

  /** The next position along the neck; at either end there is none, which is told. */
  const stepPosition = (by: 1 | -1): void => {
    const { front, positions } = now();
    const next = (front?.position.index ?? -1) + by;
    if (positions.ok && positions.value[next]) onChoose(next);
    else setEnd({ text: by > 0 ? 'this is the last position up the neck' : 'this is the lowest position' });
  };
  const nextLabels = (): void => {
    const shown = store.getState().view.labels ?? settings.labels;
    send(looked({ labels: LABELS[(LABELS.indexOf(shown) + 1) % LABELS.length]! }));
  };
  /** The address of a task of this chart; a new one that was not touched yet goes on in the page. */
  const addressOf = useCallback((path: string): string => `${base}/${path}`, [base]);
  const onOpen = useCallback(
    (path: string, words: Readonly<Record<string, string>>) => {
      ask(path, words);
      void navigate(addressOf(path));
    },
    [ask, navigate, addressOf],
  );
  useShortcuts({
    undo: () => send(undone(id)),
    redo: () => send(redone(id)),
    save: () => (isUnnamed(sessionOn(store.getState(), id)) ? setNaming(true) : void send(saveSession(id))),
    nextRoot: () => onChange((s) => stepRoot(s, 1)),
    lastRoot: () => onChange((s) => stepRoot(s, -1)),
    up: () => onChange((s) => moveKey(s, 1, settings)),
    down: () => onChange((s) => moveKey(s, -1, settings)),
    nextPosition: () => stepPosition(1),
    lastPosition: () => stepPosition(-1),
    ownPosition: () => onChange((s) => withFront(s, null)),
    labels: nextLabels,
    roots: () => send(looked({ rootsOnly: !store.getState().view.rootsOnly })),
    root: () => setOpen('root'),
    scale: () => setOpen('scale'),
    layout: () => setOpen('layout'),
    instrument: () => setOpen('instrument'),
    task: (n) => tasks[n] && void navigate(addressOf(tasks[n].path)),
    zoom: () => send(looked({ zoom: store.getState().view.zoom ? null : around(now()) })),
    neck: () => neckRef.current?.focus(),
    charts: () => void navigate('/charts'),
  });

  const picking = useMemo(
    () => task?.picking?.(model, params, settings) ?? null,
    [task, model, params, settings],
  );
  // A task that shows the player's usual fingers has none of its own to follow its parameters.
  const own = task?.fingering;
  const ownParams = own ? params : null;
  const fingering = useMemo(
    () => (own ? () => own(model, ownParams, settings) : model.fingering),
    [own, model, ownParams, settings],
  );
  const knownOnes = useMemo(() => new Set(knownPositions(model, known).map((p) => p.index)), [model, known]);
  const instead = task?.instead?.(model, params, settings) ?? null;
  const shownInstead = instead?.said ?? null;
  useWaiting(entry, shownInstead);
  const rungs = {
    positions: model.positions.ok ? model.positions.value : NONE,
    names: model.names(),
    known: knownOnes,
    front: model.front?.position.index ?? null,
    onChoose,
  };
  const ladder = (
    <Ladder instrument={state.instrument} look={look} {...rungs} slim={!entry.ladder && !narrow} />
  );
  const { notes, tags } = draft;
  const book = useMemo(() => ({ name: name || 'New chart', notes, tags, state }), [name, notes, tags, state]);
  const onTaken = useCallback(
    (name: string) => {
      const opens = tasks.find(({ phrase }) => phrase !== undefined);
      if (opens) onOpen(opens.path, { [opens.phrase!]: name });
    },
    [onOpen, tasks],
  );
  const onPaper = useCallback(
    () => task?.paper?.(model, params, settings) ?? null,
    [task, model, params, settings],
  );
  const panelProps = { model, settings, change: changeSettings, look, params, onParams, onChange, onOpen };
  const panel = task ? <task.Panel {...panelProps} /> : <Waiting what="the task" />;
  const beside = task?.Beside ? <task.Beside {...panelProps} rungs={ladder} /> : ladder;
  const corner = useMemo(
    () => <NeckCorner settings={settings} change={changeSettings} model={model} />,
    [settings, changeSettings, model],
  );
  // A step of what is played draws none of these anew.
  const atEnd = useMemo(
    () =>
      !narrow && (
        <>
          {shownInstead && (
            <p className="ml-auto truncate text-sm font-semibold">
              The neck shows {shownInstead}, not applied; sentence and ladder are as before.
            </p>
          )}
          {corner}
        </>
      ),
    [narrow, shownInstead, corner],
  );
  const row = (
    <TaskRow entries={tasks} current={entry} addressOf={addressOf}>
      {atEnd}
    </TaskRow>
  );
  // On an upright screen the neck stays, and the task stands in a sheet that opens over its lower part.
  return (
    <FilesHere
      model={model}
      source={source}
      chart={book}
      settings={settings}
      onChange={onChange}
      onTaken={onTaken}
      onPaper={onPaper}
    >
      <DockProvider value={narrow ? slot : null}>
        <div className={narrow ? 'upright-page' : 'flex flex-col gap-1'}>
          <Telling
            model={model}
            view={view}
            labels={view.labels ?? settings.labels}
            instead={shownInstead}
            end={end}
          />
          <Address draft={draft} carried={base === '/new'} of={of} task={task} params={params} />
          <ChartLine naming={naming} onNaming={setNaming} taskPath={entry.path} />
          {/* Seen while it has the focus, over what stands there, which can be clicked all the same. */}
          <h1 className="pointer-events-none sr-only bg-ground font-reading text-lg font-semibold focus:not-sr-only focus:absolute focus:z-20 focus:px-1">
            {name || 'New chart'}
          </h1>
          <Sentence
            model={model}
            open={open}
            onOpen={setOpen}
            onChange={onChange}
            onPickOnNeck={pickOnNeck}
          />
          {!narrow && row}
          {narrow && shownInstead && (
            <p className="text-sm font-semibold">The neck shows {shownInstead}, not applied.</p>
          )}
          <div
            ref={narrow ? setPlace : measureSticky}
            className={narrow ? 'upright-neck' : 'sticky top-0 z-10 bg-ground pt-1'}
          >
            <ChartNeck
              ref={neckRef}
              source={source}
              model={model}
              instead={instead?.model ?? null}
              fingering={fingering}
              spelling={settings.spelling}
              onChange={onChange}
              picking={picking}
              onParams={onParams}
              beside={narrow ? beside : undefined}
            />
          </div>
          {!narrow && ladder}
          <div id="sheet" hidden={narrow && !sheet} className={narrow ? 'sheet' : 'flex flex-col gap-1'}>
            {narrow && row}
            <FrontNote model={model} />
            <section aria-label={entry.name}>
              <h2 className="sr-only">{entry.name}</h2>
              {panel}
            </section>
            <Suspense>
              <Hints model={model} settings={settings} change={changeSettings} />
            </Suspense>
          </div>
          {/* On paper the player’s own words stand with the chart; on the screen they open from its name. */}
          <div className="hidden whitespace-pre-wrap print:block">
            {[draft.notes, draft.tags.join(', ')].filter(Boolean).join('\n\n')}
          </div>
          {narrow && (
            <Suspense>
              <Dock
                {...rungs}
                onStep={stepPosition}
                corner={corner}
                task={entry.name}
                sheet={sheet}
                onSheet={setSheet}
                slot={setSlot}
              />
            </Suspense>
          )}
        </div>
      </DockProvider>
    </FilesHere>
  );
});

/** What the neck showed in place of the chart as a task was left waits there, which is said. */
function useWaiting(entry: TaskEntry, instead: string | null): void {
  const send = useSendAll();
  const was = useRef({ entry, instead });
  useEffect(() => {
    const before = was.current;
    was.current = { entry, instead };
    if (before.entry !== entry && before.instead)
      send(said({ text: `To ${before.instead}: not applied, it waits in ${before.entry.name}.` }));
  }, [entry, instead, send]);
}

/** What stays above while the page scrolls is told to the page, so that nothing gets focus under it. */
function measureSticky(above: HTMLElement | null): (() => void) | undefined {
  if (!above) return;
  const root = document.documentElement;
  const watch = new ResizeObserver(() => root.style.setProperty('--sticky', `${above.offsetHeight}px`));
  watch.observe(above);
  return () => {
    watch.disconnect();
    root.style.removeProperty('--sticky');
  };
}
const viewOf = (s: State) => s.view;

import { type ChartState, LABELS } from '@crow-ladder/contract';
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react';
import { useStore } from 'react-redux';
import { useNavigate, useSearchParams } from 'react-router';
import { useShortcuts } from '../../app/shortcuts.ts';
import { stateToQuery } from '../../app/stateUrl.ts';
import { changed, chose, redone, undone } from '../../app/workbench.ts';
import { looked, said, type State, usedScale, useApp, useSend } from '../../app/store.ts';
import { stepRoot, transpose, withSpot } from '../../app/moves.ts';
import { useSettings } from '../../app/settings.ts';
import { type NeckLook } from '../../ui/neck/geometry.ts';
import { Neck } from '../../ui/neck/Neck.tsx';
import { useNarrow } from '../../ui/useNarrow.ts';
import { Explained, FIRST_VIEW } from './Explained.tsx';
import { Ladder } from './Ladder.tsx';
import { describeSpot, marksOf, useModel } from './model.ts';
import { NeckBar } from './NeckBar.tsx';
import { SaveBar } from './SaveBar.tsx';
import { type Part, Sentence } from './Sentence.tsx';
import { useAutosave, useSave } from './useAutosave.ts';

const ADDRESS_MS = 120;
const NONE: readonly never[] = [];

/** The chart at hand: sentence, neck, ladder, and what explains them. */
export function Workbench() {
  const send = useSend();
  const store = useStore<State>();
  const navigate = useNavigate();
  const [query, setQuery] = useSearchParams();
  const [settings, changeSettings] = useSettings();
  const narrow = useNarrow();
  const { draft, chosen, chartId, save: saveState } = useApp((s) => s.workbench);
  const { rootsOnly, zoom, labels } = useApp((s) => s.view);
  const [open, setOpen] = useState<Part | null>(null);
  const [naming, setNaming] = useState(false);
  const [view, setView] = useState(() => query.get('view') ?? FIRST_VIEW);
  const neckRef = useRef<SVGSVGElement>(null);
  const { state } = draft;
  const save = useSave();
  useAutosave(save);

  const model = useModel(state, settings, chosen);
  const shown = labels ?? settings.labels;
  const marks = useMemo(
    () => marksOf(model, shown, { rootsOnly, colours: settings.colours }),
    [model, shown, rootsOnly, settings.colours],
  );
  const frets = model.neck.frets;
  const left = settings.handed === 'left' || state.instrument.handed === 'left';
  const look = useMemo(
    (): NeckLook => ({
      vertical: narrow,
      even: settings.frets === 'even',
      lowOnTop: settings.stringOnTop === 'low',
      leftHanded: left,
      zoom: zoom ? [Math.min(zoom[0], frets - 1), Math.min(zoom[1], frets)] : null,
    }),
    [narrow, settings.frets, settings.stringOnTop, left, zoom, frets],
  );

  const onState = useCallback(
    (next: ChartState) => {
      const { scale } = store.getState().workbench.draft.state;
      send(changed({ state: next }));
      if (next.scale !== scale) setTimeout(() => send(usedScale(next.scale)));
    },
    [send, store],
  );
  const onPick = useCallback(
    (string: number, fret: number) => onState(withSpot(state, string, fret, settings.spelling)),
    [onState, state, settings.spelling],
  );
  const describe = useCallback((string: number, fret: number) => describeSpot(model, string, fret), [model]);
  const onChoose = useCallback((index: number) => send(chose(index)), [send]);
  const pickOnNeck = useCallback(() => {
    send(said({ text: 'Click a spot on the neck, or walk to it with the arrow keys and press Enter.' }));
    requestAnimationFrame(() => neckRef.current?.focus());
  }, [send]);

  // The address carries the whole state while the server does not have it.
  const kept = chartId !== null && saveState === 'saved';
  useEffect(() => {
    // A moment later than the neck, so that writing the address does not hold up the repaint.
    const timer = setTimeout(() => {
      const next = kept ? new URLSearchParams() : stateToQuery(state);
      if (view !== FIRST_VIEW) next.set('view', view);
      if (next.toString() !== new URLSearchParams(window.location.search).toString())
        setQuery(next, { replace: true });
    }, ADDRESS_MS);
    return () => clearTimeout(timer);
  }, [kept, state, view, setQuery]);
  useEffect(() => {
    document.title = `${draft.name || 'New chart'} – Crow Ladder`;
  }, [draft.name]);

  const all = model.positions.ok ? model.positions.value : [];
  const step = (by: number): void => {
    const at = model.front?.index ?? -1;
    const next = all[at + by];
    if (next) send(chose(next.index));
  };
  useShortcuts({
    undo: () => send(undone()),
    redo: () => send(redone()),
    save: () => (chartId === null ? setNaming(true) : void save()),
    nextRoot: () => onState(stepRoot(state, 1)),
    lastRoot: () => onState(stepRoot(state, -1)),
    up: () => onState(transpose(state, 1, settings.spelling)),
    down: () => onState(transpose(state, -1, settings.spelling)),
    nextPosition: () => step(1),
    lastPosition: () => step(-1),
    ownPosition: () => send(chose(null)),
    labels: () => send(looked({ labels: LABELS[(LABELS.indexOf(shown) + 1) % LABELS.length]! })),
    roots: () => send(looked({ rootsOnly: !rootsOnly })),
    root: () => setOpen('root'),
    scale: () => setOpen('scale'),
    layout: () => setOpen('layout'),
    instrument: () => setOpen('instrument'),
    neck: () => neckRef.current?.focus(),
    charts: () => void navigate('/charts'),
  });

  // What explains the neck may follow a moment later than the neck itself.
  const later = useDeferredValue(model);
  const ladder = (
    <Ladder
      instrument={later.state.instrument}
      look={look}
      positions={later.positions.ok ? later.positions.value : NONE}
      names={later.names}
      front={later.front?.index ?? null}
      onChoose={onChoose}
    />
  );
  return (
    <div className="flex flex-col gap-3">
      <SaveBar save={save} naming={naming} onNaming={setNaming} />
      <h1 className="sr-only">{draft.name || 'New chart'}</h1>
      <Sentence model={later} open={open} onOpen={setOpen} onState={onState} onPickOnNeck={pickOnNeck} />
      <NeckBar settings={settings} change={changeSettings} frets={frets} />

      <div className={narrow ? '' : 'sticky top-0 z-10 bg-ground pt-1'}>
        <Neck
          ref={neckRef}
          instrument={state.instrument}
          look={look}
          marks={marks}
          name={`Neck, ${state.instrument.tuning.length} strings, ${frets} frets`}
          root={state}
          onPick={onPick}
          describe={describe}
          beside={narrow ? ladder : undefined}
        />
      </div>

      {!narrow && ladder}
      {!model.positions.ok && <p className="error">{model.positions.error.message}</p>}
      {model.positions.ok && !model.front && (
        <p className="text-sm">
          No whole position of this layout goes through the root here. Choose one of the bars above, or
          another place for the root.
        </p>
      )}
      <Explained
        model={later}
        settings={settings}
        look={look}
        view={view}
        onView={setView}
        onState={onState}
        chartId={chartId}
      />
    </div>
  );
}

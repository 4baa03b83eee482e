import { type ChartState, LABELS } from '@crow-ladder/contract';
import { memo, useCallback, useEffect, useRef, useState } from 'react';
import { useStore } from 'react-redux';
import { useNavigate, useSearchParams } from 'react-router';
import { afterPaint, useAppLater } from '../../app/later.ts';
import { type Change, stepRoot, transpose } from '../../app/moves.ts';
import { useSettings } from '../../app/settings.ts';
import { useShortcuts } from '../../app/shortcuts.ts';
import { stateToQuery } from '../../app/stateUrl.ts';
import { changed, chose, redone, undone } from '../../app/workbench.ts';
import { looked, said, type State, usedScale, useApp, useSend } from '../../app/store.ts';
import { ChartNeck } from './ChartNeck.tsx';
import { Explained, FIRST_VIEW } from './Explained.tsx';
import { Ladder } from './Ladder.tsx';
import { modelOf } from './model.ts';
import { NeckBar } from './NeckBar.tsx';
import { SaveBar } from './SaveBar.tsx';
import { type Part, Sentence } from './Sentence.tsx';
import { useAutosave, useSave } from './useAutosave.ts';
import { useLook } from './useLook.ts';

const ADDRESS_MS = 120;
const NONE: readonly never[] = [];
const ofWorkbench = (s: State) => s.workbench;

/** Keeps the address: the tab, and the whole state while the server does not have it. */
function Address({ state, view }: { state: ChartState | null; view: string }) {
  const [, setQuery] = useSearchParams();
  useEffect(() => {
    const timer = setTimeout(() => {
      const next = state ? stateToQuery(state) : new URLSearchParams();
      if (view !== FIRST_VIEW) next.set('view', view);
      if (next.toString() !== new URLSearchParams(window.location.search).toString())
        setQuery(next, { replace: true });
    }, ADDRESS_MS);
    return () => clearTimeout(timer);
  }, [state, view, setQuery]);
  return null;
}

/** The chart at hand: sentence, neck, ladder, and what explains them. The neck comes first; the rest follows once it is drawn. */
export const Workbench = memo(function Workbench() {
  const send = useSend();
  const store = useStore<State>();
  const navigate = useNavigate();
  const [settings, changeSettings] = useSettings();
  const name = useApp((s) => s.workbench.draft.name);
  const [open, setOpen] = useState<Part | null>(null);
  const [naming, setNaming] = useState(false);
  const [view, setView] = useState(
    () => new URLSearchParams(window.location.search).get('view') ?? FIRST_VIEW,
  );
  const neckRef = useRef<SVGSVGElement>(null);
  const save = useSave();
  useAutosave(save);

  const { draft, chosen, chartId, save: saveState } = useAppLater(ofWorkbench);
  const { state } = draft;
  const model = modelOf(state, settings, chosen);
  const look = useLook(state.instrument, settings);
  const narrow = look.vertical;

  const onChange = useCallback(
    (change: Change) => {
      const { state: before } = store.getState().workbench.draft;
      const after = change(before);
      if (after === before) return;
      send(changed({ state: after }));
      if (after.scale !== before.scale) afterPaint(() => send(usedScale(after.scale)));
    },
    [send, store],
  );
  const onChoose = useCallback((index: number) => send(chose(index)), [send]);
  const pickOnNeck = useCallback(() => {
    send(said({ text: 'Click a spot on the neck, or walk to it with the arrow keys and press Enter.' }));
    requestAnimationFrame(() => neckRef.current?.focus());
  }, [send]);
  useEffect(() => {
    document.title = `${name || 'New chart'} – Crow Ladder`;
  }, [name]);

  const stepPosition = (by: number): void => {
    const { workbench: now } = store.getState();
    const { front, positions } = modelOf(now.draft.state, settings, now.chosen);
    const next = positions.ok ? positions.value[(front?.index ?? -1) + by] : undefined;
    if (next) send(chose(next.index));
  };
  const nextLabels = (): void => {
    const shown = store.getState().view.labels ?? settings.labels;
    send(looked({ labels: LABELS[(LABELS.indexOf(shown) + 1) % LABELS.length]! }));
  };
  useShortcuts({
    undo: () => send(undone()),
    redo: () => send(redone()),
    save: () => (chartId === null ? setNaming(true) : void save()),
    nextRoot: () => onChange((s) => stepRoot(s, 1)),
    lastRoot: () => onChange((s) => stepRoot(s, -1)),
    up: () => onChange((s) => transpose(s, 1, settings.spelling)),
    down: () => onChange((s) => transpose(s, -1, settings.spelling)),
    nextPosition: () => stepPosition(1),
    lastPosition: () => stepPosition(-1),
    ownPosition: () => send(chose(null)),
    labels: nextLabels,
    roots: () => send(looked({ rootsOnly: !store.getState().view.rootsOnly })),
    root: () => setOpen('root'),
    scale: () => setOpen('scale'),
    layout: () => setOpen('layout'),
    instrument: () => setOpen('instrument'),
    neck: () => neckRef.current?.focus(),
    charts: () => void navigate('/charts'),
  });

  const ladder = (
    <Ladder
      instrument={state.instrument}
      look={look}
      positions={model.positions.ok ? model.positions.value : NONE}
      names={model.names()}
      front={model.front?.index ?? null}
      onChoose={onChoose}
    />
  );
  return (
    <div className="flex flex-col gap-3">
      <Address state={chartId !== null && saveState === 'saved' ? null : state} view={view} />
      <SaveBar save={save} naming={naming} onNaming={setNaming} />
      <h1 className="sr-only">{name || 'New chart'}</h1>
      <Sentence model={model} open={open} onOpen={setOpen} onChange={onChange} onPickOnNeck={pickOnNeck} />
      <NeckBar settings={settings} change={changeSettings} frets={model.neck.frets} />

      <div className={narrow ? '' : 'sticky top-0 z-10 bg-ground pt-1'}>
        <ChartNeck
          ref={neckRef}
          settings={settings}
          onChange={onChange}
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
        model={model}
        settings={settings}
        look={look}
        view={view}
        onView={setView}
        onChange={onChange}
        chartId={chartId}
      />
    </div>
  );
});

import { type ChartState, LABELS } from '@crow-ladder/contract';
import { Tabs } from 'radix-ui';
import { memo, useCallback, useEffect, useMemo, useRef, useState } from 'react';
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
import { Explained, FIRST_VIEW, type View, viewNamed, Views } from './Explained.tsx';
import { Ladder } from './Ladder.tsx';
import { FIRST_LESSON } from './lesson.ts';
import { around, known, modelOf } from './model.ts';
import { NeckBar } from './NeckBar.tsx';
import { SaveBar } from './SaveBar.tsx';
import { type Part, Sentence } from './Sentence.tsx';
import { useAutosave, useSave } from './useAutosave.ts';
import { useLook } from './useLook.ts';

const ADDRESS_MS = 120;
const NONE: readonly never[] = [];
/** What the address asks for by name. */
const asked = (name: string): string | null => new URLSearchParams(window.location.search).get(name);
const ofWorkbench = (s: State) => s.workbench;

interface AddressProps {
  readonly state: ChartState | null;
  readonly view: View;
  readonly chosen: number | null;
}

/** Keeps the address: the view, the position brought forward, and the whole state while the server does not have it. */
function Address({ state, view, chosen }: AddressProps) {
  const [, setQuery] = useSearchParams();
  useEffect(() => {
    const timer = setTimeout(() => {
      const next = state ? stateToQuery(state) : new URLSearchParams();
      if (view !== FIRST_VIEW) next.set('view', view);
      if (chosen !== null) next.set('front', String(chosen + 1));
      if (next.toString() !== new URLSearchParams(window.location.search).toString())
        setQuery(next, { replace: true });
    }, ADDRESS_MS);
    return () => clearTimeout(timer);
  }, [state, view, chosen, setQuery]);
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
  const [view, setView] = useState(() => viewNamed(asked('view')));
  const [lesson, setLesson] = useState(FIRST_LESSON);
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
    const front = Number(asked('front'));
    if (Number.isInteger(front) && front > 0) send(chose(front - 1));
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
  /** The frets around the position in front, or the whole neck again. */
  const toggleZoom = (): void => {
    const { workbench: now, view: shown } = store.getState();
    send(looked({ zoom: shown.zoom ? null : around(modelOf(now.draft.state, settings, now.chosen)) }));
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
    shape: () => setView('shape'),
    formula: () => setView('formula'),
    notes: () => setView('notes'),
    zoom: toggleZoom,
    neck: () => neckRef.current?.focus(),
    charts: () => void navigate('/charts'),
  });

  const knownOnes = useMemo(() => new Set(known(model, settings).map((p) => p.index)), [model, settings]);
  const ladder = (
    <Ladder
      instrument={state.instrument}
      look={look}
      positions={model.positions.ok ? model.positions.value : NONE}
      names={model.names()}
      known={knownOnes}
      front={model.front?.index ?? null}
      onChoose={onChoose}
    />
  );
  const explained = (
    <Explained
      model={model}
      settings={settings}
      change={changeSettings}
      look={look}
      lesson={lesson}
      onLesson={setLesson}
      onChange={onChange}
      chartId={chartId}
    />
  );
  const learning = view === 'formula';
  const above = narrow && view !== FIRST_VIEW;
  return (
    <Tabs.Root value={view} onValueChange={(v) => setView(viewNamed(v))} className="flex flex-col gap-3">
      <Address state={chartId !== null && saveState === 'saved' ? null : state} view={view} chosen={chosen} />
      <SaveBar save={save} naming={naming} onNaming={setNaming} />
      <h1 className="sr-only">{name || 'New chart'}</h1>
      <Sentence model={model} open={open} onOpen={setOpen} onChange={onChange} onPickOnNeck={pickOnNeck} />
      <div className="flex flex-wrap items-end justify-between gap-x-6 gap-y-2">
        <NeckBar settings={settings} change={changeSettings} model={model} />
        <Views />
      </div>
      {/* What an upright neck would push off the screen stands above it. */}
      {above && explained}
      <div className={narrow ? '' : 'sticky top-0 z-10 bg-ground pt-1'}>
        <ChartNeck
          ref={neckRef}
          settings={settings}
          onChange={onChange}
          lesson={learning ? lesson : null}
          beside={narrow && !learning ? ladder : undefined}
        />
      </div>

      {!narrow && !learning && ladder}
      {!learning && !model.positions.ok && <p className="error">{model.positions.error.message}</p>}
      {!learning && model.positions.ok && !model.front && (
        <p className="text-sm">
          No whole position of this layout goes through the root here. Choose one of the bars above, or
          another place for the root.
        </p>
      )}
      {!above && explained}
    </Tabs.Root>
  );
});

import { LABELS, type Settings } from '@crow-ladder/contract';
import { Redo2, SlidersHorizontal, Undo2 } from 'lucide-react';
import { lazy, memo, Suspense } from 'react';
import { type SettingsChange } from '../app/settings.ts';
import { looked, useApp, useSend } from '../app/state.ts';
import { type Model } from '../model/model.ts';
import { redone, undone } from '../sessions/sessions.ts';
import { useSession, useSessionId } from '../sessions/useSession.ts';
import { LABEL_NAMES } from '../ui/labels.ts';
import { useFetchedSoon } from '../ui/later.ts';
import { Popup } from '../ui/Popup.tsx';

const loadDrawn = () => import('./NeckDrawn.tsx');
const NeckDrawn = lazy(() => loadDrawn().then((m) => ({ default: m.NeckDrawn })));

interface NeckBarProps {
  readonly settings: Settings;
  readonly change: (change: SettingsChange) => void;
  readonly model: Model;
  /** On a narrow screen what the marks say stands with how the neck is drawn. */
  readonly narrow: boolean;
}

/** What the neck shows: labels, roots alone, range of frets, and how it is drawn. */
export const NeckBar = memo(function NeckBar({ settings, change, model, narrow }: NeckBarProps) {
  const send = useSend();
  const { rootsOnly, labels } = useApp((s) => s.view);
  const id = useSessionId();
  const past = useSession((s) => s.past.length > 0);
  const future = useSession((s) => s.future.length > 0);
  useFetchedSoon(loadDrawn);
  const shown = (
    <>
      <label className="button">
        <span className="text-soft">Marks say</span>
        <select
          className="bg-transparent font-semibold"
          value={labels ?? settings.labels}
          onChange={(e) => send(looked({ labels: e.target.value as Settings['labels'] }))}
        >
          {LABELS.map((l) => (
            <option key={l} value={l}>
              {LABEL_NAMES[l]}
            </option>
          ))}
        </select>
      </label>
      <button
        type="button"
        className="button"
        aria-pressed={rootsOnly}
        onClick={() => send(looked({ rootsOnly: !rootsOnly }))}
      >
        Roots alone
      </button>
    </>
  );
  return (
    <div className="flex flex-wrap items-center gap-1.5" role="group" aria-label="Neck">
      <button
        type="button"
        className="button"
        aria-disabled={!past}
        onClick={() => send(undone(id))}
        aria-label="Undo"
      >
        <Undo2 size={17} aria-hidden />
      </button>
      <button
        type="button"
        className="button"
        aria-disabled={!future}
        onClick={() => send(redone(id))}
        aria-label="Redo"
      >
        <Redo2 size={17} aria-hidden />
      </button>
      {!narrow && shown}
      <Popup
        name="How the neck is drawn"
        body={
          <Suspense fallback="…">
            <NeckDrawn settings={settings} change={change} model={model} shown={narrow ? shown : null} />
          </Suspense>
        }
      >
        <SlidersHorizontal size={16} aria-hidden />
        <span className="max-sm:hidden">How the neck is drawn</span>
      </Popup>
    </div>
  );
});

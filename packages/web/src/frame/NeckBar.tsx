import { memo } from 'react';
import { LABELS, type Settings } from '@crow-ladder/contract';
import { Redo2, SlidersHorizontal, Undo2 } from 'lucide-react';
import { type SettingsChange } from '../app/settings.ts';
import { looked, useApp, useSend } from '../app/state.ts';
import { around, type Model } from '../model/model.ts';
import { redone, undone } from '../sessions/sessions.ts';
import { useSession, useSessionId } from '../sessions/useSession.ts';
import { Choice, Field, Whole } from '../ui/fields.tsx';
import { Popup } from '../ui/Popup.tsx';
import { COLOURS, LABEL_NAMES, NECK_HANDS, ON_TOP, SPACINGS } from '../ui/labels.ts';

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
  const { rootsOnly, zoom, labels } = useApp((s) => s.view);
  const id = useSessionId();
  const past = useSession((s) => s.past.length > 0);
  const future = useSession((s) => s.future.length > 0);
  const { frets } = model.neck;
  const [low, high] = zoom ?? [0, frets];
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
          <>
            {narrow && <div className="flex flex-wrap gap-2">{shown}</div>}
            <div className="flex gap-3">
              <Field label="From fret">
                <Whole
                  value={low}
                  min={0}
                  max={high - 1}
                  onChange={(n) => send(looked({ zoom: [n, high] }))}
                />
              </Field>
              <Field label="To fret">
                <Whole
                  value={high}
                  min={low + 1}
                  max={frets}
                  onChange={(n) => send(looked({ zoom: [low, n] }))}
                />
              </Field>
            </div>
            <div className="flex gap-2">
              <button
                type="button"
                className="button"
                disabled={!model.front}
                onClick={() => send(looked({ zoom: around(model) }))}
              >
                The position
              </button>
              <button
                type="button"
                className="button"
                disabled={!zoom}
                onClick={() => send(looked({ zoom: null }))}
              >
                The whole neck
              </button>
            </div>
            <Field
              label="Fret spacing"
              hint="True spacing gives way to even where a fret would be too narrow for its mark."
            >
              <Choice
                value={settings.frets}
                options={SPACINGS}
                onChange={(v) => change(() => ({ frets: v }))}
              />
            </Field>
            <Field label="On top">
              <Choice
                value={settings.stringOnTop}
                options={ON_TOP}
                onChange={(v) => change(() => ({ stringOnTop: v }))}
              />
            </Field>
            <Field label="Hand">
              <Choice
                value={settings.handed}
                options={NECK_HANDS}
                onChange={(v) => change(() => ({ handed: v }))}
              />
            </Field>
            <Field label="Colour">
              <Choice
                value={settings.colours}
                options={COLOURS}
                onChange={(v) => change(() => ({ colours: v }))}
              />
            </Field>
          </>
        }
      >
        <SlidersHorizontal size={16} aria-hidden />
        <span className="max-sm:hidden">How the neck is drawn</span>
      </Popup>
    </div>
  );
});

import { LABELS, type Settings } from '@crow-ladder/contract';
import { type SettingsChange } from '../app/settings.ts';
import { looked, useApp, useSend } from '../app/state.ts';
import { around, type Model } from '../model/model.ts';
import { Choice, Field, Whole } from '../ui/fields.tsx';
import { Switch } from '../ui/Switch.tsx';
import { useNarrow } from '../ui/useNarrow.ts';
import { COLOURS, LABEL_NAMES, NECK_HANDS, ON_TOP, SPACINGS } from '../ui/labels.ts';

interface NeckDrawnProps {
  readonly settings: Settings;
  readonly change: (change: SettingsChange) => void;
  readonly model: Model;
}

/** What the neck shows, and how it is drawn: labels, roots alone, range of frets, spacing, which way it lies, colour. */
export function NeckDrawn({ settings, change, model }: NeckDrawnProps) {
  const send = useSend();
  const { zoom, whole, labels, rootsOnly } = useApp((s) => s.view);
  const narrow = useNarrow();
  const { frets } = model.neck;
  const [low, high] = zoom ?? [0, frets];
  return (
    <>
      <Field label="Marks say">
        <Choice
          value={labels ?? settings.labels}
          options={LABELS.map((id) => ({ id, name: LABEL_NAMES[id] }))}
          onChange={(to) => send(looked({ labels: to }))}
        />
      </Field>
      <Switch on={rootsOnly} onChange={(on) => send(looked({ rootsOnly: on }))}>
        Roots alone
      </Switch>
      <div className="flex gap-3">
        <Field label="From fret">
          <Whole value={low} min={0} max={high - 1} onChange={(n) => send(looked({ zoom: [n, high] }))} />
        </Field>
        <Field label="To fret">
          <Whole value={high} min={low + 1} max={frets} onChange={(n) => send(looked({ zoom: [low, n] }))} />
        </Field>
      </div>
      <div className="flex gap-2">
        <button
          type="button"
          className="button"
          disabled={!model.front}
          onClick={() => send(looked({ zoom: narrow ? null : around(model), whole: false }))}
        >
          The position
        </button>
        <button
          type="button"
          className="button"
          disabled={!zoom && (whole || !narrow)}
          onClick={() => send(looked({ zoom: null, whole: true }))}
        >
          The whole neck
        </button>
      </div>
      <Field
        label="Fret spacing"
        hint="True spacing gives way to even where a fret would be too narrow for its mark."
      >
        <Choice value={settings.frets} options={SPACINGS} onChange={(v) => change(() => ({ frets: v }))} />
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
        <Choice value={settings.colours} options={COLOURS} onChange={(v) => change(() => ({ colours: v }))} />
      </Field>
    </>
  );
}

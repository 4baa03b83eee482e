import { type Settings } from '@crow-ladder/contract';
import { type ReactNode } from 'react';
import { type SettingsChange } from '../app/settings.ts';
import { looked, useApp, useSend } from '../app/state.ts';
import { around, type Model } from '../model/model.ts';
import { Choice, Field, Whole } from '../ui/fields.tsx';
import { COLOURS, NECK_HANDS, ON_TOP, SPACINGS } from '../ui/labels.ts';

interface NeckDrawnProps {
  readonly settings: Settings;
  readonly change: (change: SettingsChange) => void;
  readonly model: Model;
  /** What stands in the bar where there is room for it. */
  readonly shown: ReactNode;
}

/** How the neck is drawn: range of frets, spacing, which way it lies, colour. */
export function NeckDrawn({ settings, change, model, shown }: NeckDrawnProps) {
  const send = useSend();
  const { zoom } = useApp((s) => s.view);
  const { frets } = model.neck;
  const [low, high] = zoom ?? [0, frets];
  return (
    <>
      {shown && <div className="flex flex-wrap gap-2">{shown}</div>}
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

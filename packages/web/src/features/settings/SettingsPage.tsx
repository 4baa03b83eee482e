import { LABELS, type Settings, THEMES } from '@crow-ladder/contract';
import { settingsSchema, validate } from '@crow-ladder/contract/schemas';
import { NUMBERING_SCHOOLS } from '@crow-ladder/core';
import { FINGERING_SCHOOLS } from '@crow-ladder/core/run';
import { type ReactNode } from 'react';
import { useSettings } from '../../app/settings.ts';
import { Choice, Field } from '../../ui/fields.tsx';
import { Switch } from '../../ui/Switch.tsx';
import { useTitle } from '../../ui/useTitle.ts';
import { useTyped } from '../../ui/useTyped.ts';
import { Library, Visit } from './Library.tsx';
import { COLOURS, LABEL_NAMES, NECK_HANDS, ON_TOP, SPACINGS } from '../../ui/labels.ts';

const named = (id: string, name: string) => ({ id, name });
const THEME_NAMES = { system: 'as the system says', paper: 'paper', stage: 'dark stage' };

/** Preferences, kept on the server, and the whole library as a file. */
export function SettingsPage() {
  const [settings, set] = useSettings();
  useTitle('Settings');
  const choice = <K extends keyof Settings>(
    key: K,
    label: string,
    options: readonly { id: string; name: string }[],
    hint?: string,
  ) => (
    <Field label={label} hint={hint}>
      <Choice
        value={settings[key] as string}
        options={options}
        onChange={(v) => set(() => ({ [key]: v }) as Partial<Settings>)}
      />
    </Field>
  );
  return (
    <div className="flex flex-col gap-6">
      <h1 className="text-2xl font-semibold">Settings</h1>
      <Group name="Words">
        {choice('spelling', 'Spelling where both are as easy', [
          named('sharps', 'sharps'),
          named('flats', 'flats'),
        ])}
        {choice('numbering', 'Names of positions', [
          named('usual', 'as is usual for the scale'),
          ...NUMBERING_SCHOOLS,
        ])}
        {choice(
          'labels',
          'Marks say',
          LABELS.map((l) => named(l, LABEL_NAMES[l])),
        )}
      </Group>
      <Group name="Your hand">
        {choice('fingering', 'Fingering', FINGERING_SCHOOLS)}
        <Span value={settings.spanMm} onChange={(spanMm) => set(() => ({ spanMm }))} />
        {choice('handed', 'Hand', NECK_HANDS)}
      </Group>
      <Group name="The drawing">
        {choice(
          'theme',
          'Theme',
          THEMES.map((t) => named(t, THEME_NAMES[t])),
        )}
        {choice('stringOnTop', 'On top of the neck', ON_TOP)}
        {choice('frets', 'Fret spacing', SPACINGS)}
        {choice('colours', 'Colour', COLOURS)}
      </Group>
      <Group name="Keyboard and hints">
        <div className="col-span-2">
          <Switch on={settings.letterKeys} onChange={(on) => set(() => ({ letterKeys: on }))}>
            A single letter or sign does something, as the “?” sheet says
          </Switch>
        </div>
        <button
          type="button"
          className="button self-start"
          aria-disabled={!settings.seen.length}
          onClick={() => set(() => ({ seen: [] }))}
        >
          Show the hints again
        </button>
      </Group>
      <Library />
      <Visit />
    </div>
  );
}

/** Settings of one subject under its name. */
function Group({ name, children }: { name: string; children: ReactNode }) {
  return (
    <fieldset className="pt-3">
      <legend className="float-left mb-3 w-full font-reading text-lg font-semibold">{name}</legend>
      <div className="clear-both grid grid-cols-2 gap-4 lg:grid-cols-4">{children}</div>
    </fieldset>
  );
}

function Span({ value, onChange }: { value: number; onChange: (mm: number) => void }) {
  const read = (text: string) =>
    validate<{ spanMm: number }>(settingsSchema.pick(['spanMm']), {
      spanMm: text.trim() === '' ? NaN : Number(text),
    });
  // Another value that comes meanwhile leaves what is typed, and what is typed is kept as the page goes.
  const typed = useTyped(String(value), (text) => {
    const checked = read(text);
    if (checked.ok && checked.value.spanMm !== value) onChange(checked.value.spanMm);
    return checked.ok;
  });
  const checked = read(typed.text);
  return (
    <Field
      label="Your comfortable span in mm"
      error={checked.ok ? undefined : checked.error.message}
      hint="Between index and little finger, without strain."
    >
      <input
        className="input"
        inputMode="numeric"
        value={typed.text}
        onChange={(e) => typed.onText(e.target.value)}
        onBlur={typed.onBlur}
      />
    </Field>
  );
}

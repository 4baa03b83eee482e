import { BODY_LIMIT, LABELS, type Settings, THEMES } from '@crow-ladder/contract';
import { settingsSchema, validate } from '@crow-ladder/contract/schemas';
import { FINGERING_SCHOOLS, NUMBERING_SCHOOLS } from '@crow-ladder/core';
import { type ReactNode, useState } from 'react';
import { server, type Trouble } from '../../app/api.ts';
import { useSettings } from '../../app/settings.ts';
import { said } from '../../app/notice.ts';
import { useSend } from '../../app/store.ts';
import { Dialog } from '../../ui/Dialog.tsx';
import { download } from '../../ui/download.ts';
import { Choice, Field } from '../../ui/fields.tsx';
import { useTitle } from '../../ui/useTitle.ts';
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
        <Span key={settings.spanMm} value={settings.spanMm} onChange={(spanMm) => set(() => ({ spanMm }))} />
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
        <label className="col-span-2 flex gap-2">
          <input
            type="checkbox"
            checked={settings.letterKeys}
            onChange={({ target: { checked } }) => set(() => ({ letterKeys: checked }))}
          />
          A single letter or sign does something, as the “?” sheet says
        </label>
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
    </div>
  );
}

/** Settings of one subject under its name. */
function Group({ name, children }: { name: string; children: ReactNode }) {
  return (
    <fieldset className="border-t border-hair pt-3">
      <legend className="float-left mb-3 w-full font-reading text-lg font-semibold">{name}</legend>
      <div className="clear-both grid grid-cols-2 gap-4 lg:grid-cols-4">{children}</div>
    </fieldset>
  );
}

function Span({ value, onChange }: { value: number; onChange: (mm: number) => void }) {
  const [typed, setTyped] = useState(String(value));
  const checked = validate<{ spanMm: number }>(settingsSchema.pick(['spanMm']), {
    spanMm: typed.trim() === '' ? NaN : Number(typed),
  });
  return (
    <Field
      label="Your comfortable span in mm"
      error={checked.ok ? undefined : checked.error.message}
      hint="Between index and little finger, without strain."
    >
      <input
        className="input"
        inputMode="numeric"
        value={typed}
        onChange={(e) => setTyped(e.target.value)}
        onBlur={() => checked.ok && checked.value.spanMm !== value && onChange(checked.value.spanMm)}
      />
    </Field>
  );
}

function Library() {
  const send = useSend();
  const [fetchBackup] = server.useBackupMutation();
  const [restore, { isLoading }] = server.useRestoreMutation();
  const [waiting, setWaiting] = useState<{ name: string; data: unknown; charts: number } | null>(null);
  const [problem, setProblem] = useState<string | null>(null);

  const saveBackup = async (): Promise<void> => {
    const got = await fetchBackup();
    if (got.error) return void setProblem((got.error as Trouble).message);
    download(
      `crow-ladder-${new Date().toISOString().slice(0, 10)}.json`,
      new Blob([JSON.stringify(got.data, null, 1)], { type: 'application/json' }),
    );
  };
  const read = async (file: File): Promise<void> => {
    setProblem(null);
    if (file.size > BODY_LIMIT.backup)
      return void setProblem(
        `${file.name} is larger than ${BODY_LIMIT.backup / 1e6} MB, more than a backup can be. Nothing was changed.`,
      );
    try {
      const data: unknown = JSON.parse(await file.text());
      const charts = (data as { charts?: unknown } | null)?.charts;
      setWaiting({ name: file.name, data, charts: Array.isArray(charts) ? charts.length : 0 });
    } catch {
      setProblem(
        `${file.name} is cut short or is not a backup: it cannot be read as JSON. Nothing was changed.`,
      );
    }
  };
  const go = async (): Promise<void> => {
    const done = await restore(waiting!.data);
    setWaiting(null);
    if (done.error) setProblem(`${(done.error as Trouble).message} Nothing was changed.`);
    else
      send(
        said({
          text: `The library is back: ${done.data.charts} charts and ${done.data.instruments} instruments.`,
        }),
      );
  };
  return (
    <section className="flex flex-col gap-3 border-t-2 border-ink pt-4">
      <h2 className="text-xl font-semibold">The whole library</h2>
      <p className="text-soft">
        All charts, instruments and settings in one file. Bringing a file back replaces everything, or changes
        nothing.
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <button type="button" className="button" onClick={() => void saveBackup()}>
          Save a backup
        </button>
        <label className="button focus-within:outline-2 focus-within:outline-accent">
          Bring a backup back
          <input
            type="file"
            accept="application/json,.json"
            className="sr-only"
            onChange={(e) => {
              const file = e.target.files?.[0];
              if (file) void read(file);
              e.target.value = '';
            }}
          />
        </label>
      </div>
      {problem && (
        <p className="error" role="alert">
          {problem}
        </p>
      )}
      <Dialog
        open={waiting !== null}
        onOpenChange={(open) => !open && setWaiting(null)}
        title="Replace the whole library?"
        text={
          waiting
            ? `${waiting.name} holds ${waiting.charts} charts. Everything that is here now is replaced by it.`
            : ''
        }
      >
        <div className="flex gap-2">
          <button
            type="button"
            className="button button-strong"
            disabled={isLoading}
            onClick={() => void go()}
          >
            {isLoading ? 'Replacing…' : 'Replace everything'}
          </button>
          <button type="button" className="button" onClick={() => setWaiting(null)}>
            Leave it as it is
          </button>
        </div>
      </Dialog>
    </section>
  );
}

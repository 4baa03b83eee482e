import { FORMAT_KINDS, type FormatKind, NAMED } from '@crow-ladder/formats/named';
import { useEffect, useMemo, useState } from 'react';
import { type Model } from '../model/model.ts';
import { writables } from '../model/music.ts';
import { Dialog } from '../ui/Dialog.tsx';
import { download, fileName } from '../ui/download.ts';
import { Choice, Field } from '../ui/fields.tsx';

interface SaveAsProps {
  readonly model: Model;
  /** What is chosen at first. */
  readonly what: string | null;
  /** What the chart is called: files begin with it. */
  readonly chart: string;
  readonly onClose: () => void;
}

/** What the format cannot carry of the music at hand. */
interface Made {
  readonly id: string;
  readonly file: Blob;
  readonly lost: readonly string[];
}

/** Something of a chart written down as a file of a chosen format. */
export function SaveAs({ model, what, chart, onClose }: SaveAsProps) {
  const all = useMemo(() => writables(model), [model]);
  const [chosen, setChosen] = useState(what);
  const [kind, setKind] = useState<FormatKind>('musicxml');
  const it = all.find(({ id }) => id === chosen) ?? all[0];
  const music = useMemo(() => it?.music(), [it]);
  const format = NAMED[kind];
  const id = it ? `${it.id} ${kind}` : '';
  const [made, setMade] = useState<Made | null>(null);
  const [failed, setFailed] = useState(false);
  useEffect(() => {
    if (!music?.ok) return undefined;
    let wanted = true;
    void import('@crow-ladder/formats/write').then(
      ({ WRITERS }) => {
        const { bytes, lost } = WRITERS[kind](music.value);
        if (wanted) setMade({ id, file: new Blob([bytes], { type: NAMED[kind].mime }), lost });
      },
      () => wanted && setFailed(true),
    );
    return () => {
      wanted = false;
    };
  }, [music, kind, id]);
  const ready = made?.id === id ? made : null;
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Save as"
      text="Notes of this chart as a file for other programs, and for others who play."
    >
      {it && music ? (
        <form
          className="flex flex-col gap-4"
          onSubmit={(e) => {
            e.preventDefault();
            if (!ready || !music.ok) return;
            download(`${fileName(`${chart} ${music.value.title}`)}.${format.extensions[0]}`, ready.file);
            onClose();
          }}
        >
          <Field label="What">
            <Choice value={it.id} options={all} onChange={setChosen} />
          </Field>
          <Field label="As" hint={`It cannot carry ${format.lacks}.`}>
            <Choice
              value={kind}
              options={FORMAT_KINDS.map((one) => ({
                id: one,
                name: `${NAMED[one].name} (.${NAMED[one].extensions[0]})`,
              }))}
              onChange={setKind}
            />
          </Field>
          {!music.ok && (
            <p role="alert" className="error">
              {music.error.message}
            </p>
          )}
          {failed && (
            <p role="alert" className="error">
              The file could not be made. Load the page again and try once more.
            </p>
          )}
          {ready && ready.lost.length > 0 && (
            <div role="status">
              <p className="font-semibold">Of this it leaves out:</p>
              <ul className="text-sm">
                {ready.lost.map((said) => (
                  <li key={said}>{said}</li>
                ))}
              </ul>
            </div>
          )}
          <button type="submit" className="button button-strong self-start" disabled={!ready}>
            Save the file
          </button>
        </form>
      ) : (
        <p>This chart has no position and no phrase that could be written down.</p>
      )}
    </Dialog>
  );
}

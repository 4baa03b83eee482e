import { type ChartDraft } from '@crow-ladder/contract';
import { type Result } from '@crow-ladder/core';
import { useEffect, useMemo, useState } from 'react';
import { type Model } from '../model/model.ts';
import { Dialog } from '../ui/Dialog.tsx';
import { download, fileName } from '../ui/download.ts';
import { Choice, Field } from '../ui/fields.tsx';
import { type SceneSource } from '../ui/neck/source.ts';
import { type Made, savables } from './savable.ts';

interface SaveAsProps {
  readonly model: Model;
  readonly source: SceneSource;
  /** The chart as it is kept; its name, which it has by now, is what files begin with. */
  readonly draft: ChartDraft;
  /** What is chosen at first. */
  readonly what: string | null;
  readonly onClose: () => void;
}
const AT_FIRST = 'musicxml';

/** Something of a chart written down as a file of a chosen kind. */
export function SaveAs({ model, source, draft, what, onClose }: SaveAsProps) {
  const all = useMemo(() => savables(model, draft, source), [model, draft, source]);
  const [chosen, setChosen] = useState(what);
  const [wanted, setWanted] = useState(AT_FIRST);
  const it = all.find(({ id }) => id === chosen) ?? all[0]!;
  const kind = it.kinds.find(({ id }) => id === wanted) ?? it.kinds[0]!;
  const [made, setMade] = useState<{ readonly of: string; readonly is: Result<Made> } | null>(null);
  const [failed, setFailed] = useState(false);
  const of = `${it.id} ${kind.id}`;
  useEffect(() => {
    let wants = true;
    it.make(kind.id).then(
      (is) => wants && setMade({ of, is }),
      () => wants && setFailed(true),
    );
    return () => {
      wants = false;
    };
  }, [it, kind, of]);
  const ready = made?.of === of ? made.is : null;
  const called = it.id === 'chart' || it.id === 'neck' ? '' : it.name.replace(/^the (phrase|climb) /, '');
  return (
    <Dialog
      open
      onOpenChange={onClose}
      title="Save as"
      text="Something of this chart as a file, for other programs and for others who play."
    >
      <form
        className="flex flex-col gap-4"
        onSubmit={(e) => {
          e.preventDefault();
          if (!ready?.ok) return;
          download(`${fileName(`${draft.name} ${called}`)}.${kind.extension}`, ready.value.file);
          onClose();
        }}
      >
        <Field label="What">
          <Choice value={it.id} options={all} onChange={setChosen} />
        </Field>
        <Field label="As" hint={kind.told}>
          <Choice
            value={kind.id}
            options={it.kinds.map(({ id, name, extension }) => ({ id, name: `${name} (.${extension})` }))}
            onChange={setWanted}
          />
        </Field>
        {ready && !ready.ok && (
          <p role="alert" className="error">
            {ready.error.message}
          </p>
        )}
        {failed && (
          <p role="alert" className="error">
            The file could not be made. Load the page again and try once more.
          </p>
        )}
        {ready?.ok && ready.value.lost.length > 0 && (
          <div role="status">
            <p className="font-semibold">Of this it leaves out:</p>
            <ul className="text-sm">
              {ready.value.lost.map((said) => (
                <li key={said}>{said}</li>
              ))}
            </ul>
          </div>
        )}
        <button type="submit" className="button button-strong self-start" disabled={!ready?.ok}>
          Save the file
        </button>
      </form>
    </Dialog>
  );
}

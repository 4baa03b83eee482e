import { type ChartDraft } from '@crow-ladder/contract';
import { useState } from 'react';
import { said } from '../app/notice.ts';
import { useSend } from '../app/state.ts';
import { download, fileName } from '../ui/download.ts';
import { type SceneSource } from '../ui/neck/source.ts';

interface ShareRowsProps {
  readonly source: SceneSource;
  readonly draft: () => ChartDraft;
  /** The task that a link opens. */
  readonly taskPath: string;
  readonly onClose: () => void;
}

const PICTURES = [
  { id: 'svg', name: 'SVG', for: 'a picture for print, and to be edited: text stays text' },
  { id: 'png', name: 'PNG', for: 'a picture for a message or a page' },
] as const;
/** A row of a menu. */
export const ROW = 'block w-full px-2 py-1.5 text-left hover:bg-seam';

/** What the neck shows, as a file, and the whole chart in a link. */
export function ShareRows({ source, draft, taskPath, onClose }: ShareRowsProps) {
  const send = useSend();
  /** The link, where this browser does not let a page copy it. */
  const [link, setLink] = useState<string | null>(null);
  const save = async (kind: (typeof PICTURES)[number]['id']): Promise<void> => {
    onClose();
    const called = draft().name || 'New chart';
    try {
      const { pictureFile } = await import('./pictureFile.ts');
      download(`${fileName(called)}.${kind}`, await pictureFile(kind, source.get(), called));
    } catch {
      send(said({ text: 'The picture could not be made. Load the page again and try once more.' }));
    }
  };
  const copy = async (): Promise<void> => {
    const { draftToQuery } = await import('../model/addressWords.ts');
    const to = `${window.location.origin}/new/${taskPath}?${draftToQuery(draft())}`;
    try {
      await navigator.clipboard.writeText(to);
      onClose();
      send(said({ text: 'The link is copied. Wherever it is opened, it opens as a new chart.' }));
    } catch {
      setLink(to);
    }
  };
  return (
    <>
      {PICTURES.map((kind) => (
        <button key={kind.id} type="button" className={ROW} onClick={() => void save(kind.id)}>
          <span className="font-semibold">Picture as {kind.name}</span>
          <span className="block text-sm text-soft">{kind.for}</span>
        </button>
      ))}
      {link === null ? (
        <button type="button" className={ROW} onClick={() => void copy()}>
          <span className="font-semibold">Copy a link</span>
          <span className="block text-sm text-soft">the whole chart, opened as a new one</span>
        </button>
      ) : (
        <label className="flex flex-col gap-1 px-2 py-1.5 text-sm">
          Copy this link
          <input className="input" readOnly autoFocus value={link} onFocus={(e) => e.target.select()} />
        </label>
      )}
    </>
  );
}

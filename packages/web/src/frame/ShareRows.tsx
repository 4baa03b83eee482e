import { type ChartDraft } from '@crow-ladder/contract';
import { useState } from 'react';
import { said } from '../app/notice.ts';
import { useSend } from '../app/state.ts';

interface ShareRowsProps {
  readonly draft: () => ChartDraft;
  /** The task that a link opens. */
  readonly taskPath: string;
  readonly onClose: () => void;
}

/** A row of a menu. */
export const ROW = 'block w-full px-2 py-1.5 text-left hover:bg-seam';

/** The whole chart in a link. */
export function ShareRows({ draft, taskPath, onClose }: ShareRowsProps) {
  const send = useSend();
  /** The link, where this browser does not let a page copy it. */
  const [link, setLink] = useState<string | null>(null);
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

import { ImageDown } from 'lucide-react';
import { useState } from 'react';
import { said } from '../app/notice.ts';
import { useSend } from '../app/state.ts';
import { download, fileName } from '../ui/download.ts';
import { type SceneSource } from '../ui/neck/source.ts';
import { Popup } from '../ui/Popup.tsx';

interface SavePictureProps {
  readonly source: SceneSource;
  /** Name of the chart, empty for a new one. */
  readonly name: string;
}

const KINDS = [
  { id: 'svg', name: 'SVG', for: 'for print, and to be edited: text stays text' },
  { id: 'png', name: 'PNG', for: 'for a message or a page' },
] as const;

/** What the neck shows, as a file. */
export function SavePicture({ source, name }: SavePictureProps) {
  const send = useSend();
  const [open, setOpen] = useState(false);
  const save = async (kind: (typeof KINDS)[number]['id']): Promise<void> => {
    setOpen(false);
    const called = name || 'New chart';
    try {
      const { pictureFile } = await import('./pictureFile.ts');
      download(`${fileName(called)}.${kind}`, await pictureFile(kind, source.get(), called));
    } catch {
      send(said({ text: 'The picture could not be made. Load the page again and try once more.' }));
    }
  };
  return (
    <Popup
      name="Save picture"
      buttonClass="button button-quiet"
      open={open}
      onOpenChange={setOpen}
      body={
        <>
          {KINDS.map((kind) => (
            <button
              key={kind.id}
              type="button"
              className="w-full px-2 py-1.5 text-left hover:bg-seam"
              onClick={() => void save(kind.id)}
            >
              <span className="font-semibold">{kind.name}</span>
              <span className="block text-sm text-soft">{kind.for}</span>
            </button>
          ))}
        </>
      }
    >
      <ImageDown size={16} aria-hidden /> <span className="max-sm:sr-only">Save picture</span>
    </Popup>
  );
}

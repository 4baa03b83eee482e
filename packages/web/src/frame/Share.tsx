import { type ChartDraft } from '@crow-ladder/contract';
import { Share2 } from 'lucide-react';
import { lazy, Suspense, useState } from 'react';
import { useFetchedSoon } from '../ui/later.ts';
import { type SceneSource } from '../ui/neck/source.ts';
import { Popup } from '../ui/Popup.tsx';

const loadMenu = () => import('./ShareMenu.tsx');
const ShareMenu = lazy(() => loadMenu().then((m) => ({ default: m.ShareMenu })));

interface ShareProps {
  readonly source: SceneSource;
  readonly draft: () => ChartDraft;
  /** The task that a link opens. */
  readonly taskPath: string;
}

/** The ways in which a chart leaves the page. */
export function Share(parts: ShareProps) {
  const [open, setOpen] = useState(false);
  useFetchedSoon(loadMenu);
  return (
    <Popup
      name="Share"
      buttonClass="button button-quiet"
      open={open}
      onOpenChange={setOpen}
      body={
        <Suspense fallback="…">
          <ShareMenu {...parts} onClose={() => setOpen(false)} />
        </Suspense>
      }
    >
      <Share2 size={16} aria-hidden /> <span className="max-sm:sr-only">Share</span>
    </Popup>
  );
}

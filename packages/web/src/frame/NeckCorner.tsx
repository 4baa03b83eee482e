import { type Settings } from '@crow-ladder/contract';
import { ChevronDown, SlidersHorizontal } from 'lucide-react';
import { lazy, memo, Suspense } from 'react';
import { type SettingsChange } from '../app/settings.ts';
import { useApp } from '../app/state.ts';
import { type Model } from '../model/model.ts';
import { LABEL_NAMES } from '../ui/labels.ts';
import { useFetchedSoon } from '../ui/later.ts';
import { Popup } from '../ui/Popup.tsx';

const loadDrawn = () => import('./NeckDrawn.tsx');
const NeckDrawn = lazy(() => loadDrawn().then((m) => ({ default: m.NeckDrawn })));

interface NeckCornerProps {
  readonly settings: Settings;
  readonly change: (change: SettingsChange) => void;
  readonly model: Model;
}

/** What the marks of the neck say, as the one word of its corner; roots alone and how it is drawn open with it. */
export const NeckCorner = memo(function NeckCorner({ settings, change, model }: NeckCornerProps) {
  const { rootsOnly, labels } = useApp((s) => s.view);
  useFetchedSoon(loadDrawn);
  const says = LABEL_NAMES[labels ?? settings.labels];
  const shown = rootsOnly ? `${says}, roots alone` : says;
  return (
    <Popup
      name="How the neck is drawn"
      label={`How the neck is drawn: ${shown}`}
      buttonClass="corner"
      body={
        <Suspense fallback="…">
          <NeckDrawn settings={settings} change={change} model={model} />
        </Suspense>
      }
    >
      <span className="max-[760px]:sr-only">{shown}</span>
      <SlidersHorizontal size={18} className="min-[761px]:hidden" aria-hidden />
      <ChevronDown size={14} className="max-[760px]:hidden" aria-hidden />
    </Popup>
  );
});

import { lazy, type ReactNode, Suspense, useMemo, useState } from 'react';
import { type Settings } from '@crow-ladder/contract';
import { type BookChart } from '../model/book.ts';
import { type Change } from '../model/moves.ts';
import { type Model } from '../model/model.ts';
import { type Given } from '../workers/opened.ts';
import { FilesProvider } from './asked.ts';
import { useGiven } from './given.ts';

const OpenFile = lazy(() => import('./OpenFile.tsx').then((m) => ({ default: m.OpenFile })));
const PrintBook = lazy(() => import('./PrintBook.tsx').then((m) => ({ default: m.PrintBook })));
const SaveAs = lazy(() => import('./SaveAs.tsx').then((m) => ({ default: m.SaveAs })));

interface FilesHereProps {
  readonly model: Model;
  readonly chart: BookChart;
  readonly settings: Settings;
  readonly onChange: (change: Change) => void;
  /** Told the name of a phrase that was taken from a file. */
  readonly onTaken: (phrase: string) => void;
  readonly children: ReactNode;
}

/** A chart whose page opens files, dropped, pasted or chosen, and saves what is on it as one. */
export function FilesHere({ model, chart, settings, onChange, onTaken, children }: FilesHereProps) {
  const [opening, setOpening] = useState<{ readonly nth: number; readonly first: Given | null } | null>(null);
  const [saving, setSaving] = useState<{ readonly what: string | null } | null>(null);
  const [printing, setPrinting] = useState(false);
  const files = useMemo(
    () => ({
      open: (first?: Given) => setOpening((was) => ({ nth: (was?.nth ?? 0) + 1, first: first ?? null })),
      save: (what?: string) => setSaving({ what: what ?? null }),
      print: () => setPrinting(true),
    }),
    [],
  );
  const over = useGiven(files.open);
  return (
    <FilesProvider value={files}>
      {children}
      {over && (
        <p className="pointer-events-none fixed inset-4 z-50 grid place-items-center border-4 border-dashed border-accent bg-ground/85 text-xl font-semibold">
          Drop the file: what is in it is shown before it is taken.
        </p>
      )}
      <Suspense>
        {opening && (
          <OpenFile
            key={opening.nth}
            model={model}
            first={opening.first}
            onChange={onChange}
            onTaken={(phrase) => {
              setOpening(null);
              onTaken(phrase);
            }}
            onClose={() => setOpening(null)}
          />
        )}
        {saving && (
          <SaveAs model={model} what={saving.what} chart={chart.name} onClose={() => setSaving(null)} />
        )}
        {printing && <PrintBook chart={chart} settings={settings} onClose={() => setPrinting(false)} />}
      </Suspense>
    </FilesProvider>
  );
}

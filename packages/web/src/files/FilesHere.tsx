import { lazy, type ReactNode, Suspense, useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { type ChartDraft, type Settings } from '@crow-ladder/contract';
import { type BookOf } from '../paper/asked.ts';
import { type OnPaper } from '../paper/onPaper.ts';
import { type Change } from '../model/moves.ts';
import { type Model } from '../model/model.ts';
import { type SceneSource } from '../ui/neck/source.ts';
import { type Given } from '../workers/opened.ts';
import { FilesProvider } from './asked.ts';
import { useGiven } from './given.ts';

const OpenFile = lazy(() => import('./OpenFile.tsx').then((m) => ({ default: m.OpenFile })));
const LearnThis = lazy(() =>
  import('../features/recall/LearnThis.tsx').then((m) => ({ default: m.LearnThis })),
);
const Tuner = lazy(() => import('../hearing/TunerDialog.tsx').then((m) => ({ default: m.TunerDialog })));
const PrintBook = lazy(() => import('./PrintBook.tsx').then((m) => ({ default: m.PrintBook })));
const StandingSheet = lazy(() => import('./StandingSheet.tsx').then((m) => ({ default: m.StandingSheet })));
const SaveAs = lazy(() => import('./SaveAs.tsx').then((m) => ({ default: m.SaveAs })));

interface FilesHereProps {
  readonly model: Model;
  /** What the neck shows. */
  readonly source: SceneSource;
  readonly chart: ChartDraft;
  readonly settings: Settings;
  readonly onChange: (change: Change) => void;
  /** Told the name of a phrase that was taken from a file. */
  readonly onTaken: (phrase: string) => void;
  /** What the task in front puts on paper; null where it prints as it stands. */
  readonly onPaper: () => OnPaper | null;
  readonly children: ReactNode;
}

/** A chart whose page opens files, dropped, pasted or chosen, and saves what is on it as one. */
export function FilesHere({
  model,
  source,
  chart,
  settings,
  onChange,
  onTaken,
  onPaper,
  children,
}: FilesHereProps) {
  const [opening, setOpening] = useState<{ readonly nth: number; readonly first: Given | null } | null>(null);
  const [saving, setSaving] = useState<{ readonly what: string | null } | null>(null);
  const [learning, setLearning] = useState(false);
  const [tuning, setTuning] = useState(false);
  const [printing, setPrinting] = useState<{ readonly on: OnPaper | null } | null>(null);
  const now = useRef(onPaper);
  useEffect(() => {
    now.current = onPaper;
  });
  const files = useMemo(
    () => ({
      open: (first?: Given) => setOpening((was) => ({ nth: (was?.nth ?? 0) + 1, first: first ?? null })),
      save: (what?: string) => setSaving({ what: what ?? null }),
      learn: () => setLearning(true),
      tune: () => setTuning(true),
      print: () => setPrinting({ on: now.current() }),
    }),
    [],
  );
  const over = useGiven(files.open);
  const sheet = useCallback((): BookOf | null => {
    const on = onPaper();
    return on && { charts: [chart], settings, onPaper: on };
  }, [chart, settings, onPaper]);
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
          <SaveAs
            model={model}
            source={source}
            draft={chart}
            what={saving.what}
            onClose={() => setSaving(null)}
          />
        )}
        {tuning && <Tuner model={model} onClose={() => setTuning(false)} />}
        {learning && <LearnThis model={model} onClose={() => setLearning(false)} />}
        {printing && (
          <PrintBook
            chart={chart}
            settings={settings}
            onPaper={printing.on}
            onClose={() => setPrinting(null)}
          />
        )}
        {!printing && <StandingSheet make={sheet} />}
      </Suspense>
    </FilesProvider>
  );
}

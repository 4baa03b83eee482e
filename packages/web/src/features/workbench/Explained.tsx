import { type Settings } from '@crow-ladder/contract';
import { Tabs } from 'radix-ui';
import { lazy, memo, Suspense } from 'react';
import { type Change } from '../../app/moves.ts';
import { type NeckLook } from '../../ui/neck/geometry.ts';
import { Waiting } from '../../ui/Waiting.tsx';
import { CloseUp } from './CloseUp.tsx';
import { type Model } from './model.ts';
import { NotesView } from './NotesView.tsx';

// What the first screen does not need is loaded when it is asked for.
const FormulaView = lazy(() => import('./FormulaView.tsx').then((m) => ({ default: m.FormulaView })));

const VIEWS = [
  { id: 'shape', name: 'The shape' },
  { id: 'formula', name: 'From formula to neck' },
  { id: 'notes', name: 'Notes and tags' },
] as const;
/** The tab shown when the address names none. */
export const FIRST_VIEW = VIEWS[0].id;

interface ExplainedProps {
  readonly model: Model;
  readonly settings: Settings;
  readonly look: NeckLook;
  readonly view: string;
  readonly onView: (view: string) => void;
  readonly onChange: (change: Change) => void;
  readonly chartId: string | null;
}

/** What explains the neck, in tabs: the shape close up, the formula on its way to the neck, the player's notes. */
export const Explained = memo(function Explained({
  model,
  settings,
  look,
  view,
  onView,
  onChange,
  chartId,
}: ExplainedProps) {
  return (
    <Tabs.Root value={view} onValueChange={onView} className="mt-1">
      <Tabs.List aria-label="About this chart" className="mb-4 flex flex-wrap gap-1 border-b-2 border-ink">
        {VIEWS.map((v) => (
          <Tabs.Trigger
            key={v.id}
            value={v.id}
            className="px-3 py-2 data-[state=active]:bg-ink data-[state=active]:text-ground"
          >
            {v.name}
          </Tabs.Trigger>
        ))}
      </Tabs.List>
      <Tabs.Content value="shape">
        <CloseUp model={model} settings={settings} look={look} />
      </Tabs.Content>
      <Tabs.Content value="formula">
        <Suspense fallback={<Waiting what="the formula" />}>
          <FormulaView model={model} settings={settings} look={look} onChange={onChange} />
        </Suspense>
      </Tabs.Content>
      <Tabs.Content value="notes">
        <NotesView key={chartId} />
      </Tabs.Content>
    </Tabs.Root>
  );
});

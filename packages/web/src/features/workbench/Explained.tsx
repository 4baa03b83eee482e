import { type Settings } from '@crow-ladder/contract';
import { Tabs } from 'radix-ui';
import { lazy, memo, Suspense } from 'react';
import { type Change } from '../../app/moves.ts';
import { type NeckLook } from '../../ui/neck/geometry.ts';
import { Waiting } from '../../ui/Waiting.tsx';
import { CloseUp } from './CloseUp.tsx';
import { type Lesson } from './lesson.ts';
import { type Model } from './model.ts';
import { NotesView } from './NotesView.tsx';

// What the first screen does not need is loaded when it is asked for.
const FormulaView = lazy(() => import('./FormulaView.tsx').then((m) => ({ default: m.FormulaView })));

const VIEWS = [
  { id: 'shape', name: 'The shape' },
  { id: 'formula', name: 'From formula to neck' },
  { id: 'notes', name: 'Notes and tags' },
] as const;
export type View = (typeof VIEWS)[number]['id'];
/** The view shown when the address names none that there is. */
export const FIRST_VIEW: View = VIEWS[0].id;
export const viewNamed = (id: string | null): View => VIEWS.find((v) => v.id === id)?.id ?? FIRST_VIEW;

/** The views of a chart: each says what the neck shows, and what stands under it. */
export const Views = memo(function Views() {
  return (
    <Tabs.List aria-label="About this chart" className="flex flex-wrap gap-1">
      {VIEWS.map((v) => (
        <Tabs.Trigger key={v.id} value={v.id} className="view">
          {v.name}
        </Tabs.Trigger>
      ))}
    </Tabs.List>
  );
});

interface ExplainedProps {
  readonly model: Model;
  readonly settings: Settings;
  readonly change: (part: Partial<Settings>) => void;
  readonly look: NeckLook;
  readonly lesson: Lesson;
  readonly onLesson: (lesson: Lesson) => void;
  readonly onChange: (change: Change) => void;
  readonly chartId: string | null;
}

/** What explains the neck: the shape close up, the formula on its way to the neck, or the player's notes. */
export const Explained = memo(function Explained({
  model,
  settings,
  change,
  look,
  lesson,
  onLesson,
  onChange,
  chartId,
}: ExplainedProps) {
  return (
    <>
      <Tabs.Content value="shape">
        <CloseUp model={model} settings={settings} change={change} look={look} />
      </Tabs.Content>
      <Tabs.Content value="formula">
        <Suspense fallback={<Waiting what="the formula" />}>
          <FormulaView
            model={model}
            settings={settings}
            lesson={lesson}
            onLesson={onLesson}
            onChange={onChange}
          />
        </Suspense>
      </Tabs.Content>
      <Tabs.Content value="notes">
        <NotesView key={chartId} />
      </Tabs.Content>
    </>
  );
});

import { memo } from 'react';
import { type PanelProps } from '../../task/task.ts';
import { Views } from '../../ui/Views.tsx';
import { AllKeys } from './AllKeys.tsx';
import { FindTuning } from './FindTuning.tsx';
import { Fourths } from './Fourths.tsx';
import { MoveForm } from './MoveForm.tsx';
import { type MoveParams, type Tool, views } from './params.ts';
import { asked } from './seen.ts';
import { Tension } from './Tension.tsx';

const PARTS: Readonly<Record<Tool, (props: PanelProps<MoveParams>) => React.ReactNode>> = {
  fourths: Fourths,
  keys: AllKeys,
  find: FindTuning,
  tension: Tension,
};

/** What is moved, where to, and what comes of it. */
export const Panel = memo(function Panel(props: PanelProps<MoveParams>) {
  const { params, onParams, model } = props;
  const now = asked(model, params);
  const Part = PARTS[params.view as Tool];
  return (
    <div className="flex flex-col gap-4">
      <Views
        label="What to move"
        views={views()}
        now={params.view}
        onView={(view) => onParams({ ...params, view, move: null })}
      />
      {!model.front ? (
        <p>There is no position to move: choose another layout.</p>
      ) : now ? (
        <MoveForm key={now.it.kind} {...props} move={now.it} spec={now.spec} />
      ) : (
        <Part {...props} />
      )}
    </div>
  );
});

import { memo } from 'react';
import { type PanelProps } from '../../task/task.ts';
import { Views } from '../../ui/Views.tsx';
import { AllKeys } from './AllKeys.tsx';
import { CapoMove } from './CapoMove.tsx';
import { FindTuning } from './FindTuning.tsx';
import { Fourths } from './Fourths.tsx';
import { KeyMove } from './KeyMove.tsx';
import { ModeMove } from './ModeMove.tsx';
import { type MoveParams, VIEWS } from './params.ts';
import { StringMove } from './StringMove.tsx';
import { Tension } from './Tension.tsx';
import { TuningMove } from './TuningMove.tsx';

const PARTS = {
  key: KeyMove,
  mode: ModeMove,
  strings: StringMove,
  fourths: Fourths,
  tuning: TuningMove,
  capo: CapoMove,
  keys: AllKeys,
  find: FindTuning,
  tension: Tension,
} as const;

/** What is moved, where to, and what comes of it. */
export const Panel = memo(function Panel(props: PanelProps<MoveParams>) {
  const { params, onParams, model } = props;
  const Part = PARTS[params.view];
  return (
    <div className="flex flex-col gap-4">
      <Views
        label="What to move"
        views={VIEWS}
        now={params.view}
        onView={(view) => onParams({ ...params, view })}
      />
      {model.front ? <Part {...props} /> : <p>There is no position to move: choose another layout.</p>}
    </div>
  );
});

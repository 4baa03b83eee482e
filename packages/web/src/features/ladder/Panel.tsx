import { memo } from 'react';
import { type PanelProps } from '../../task/task.ts';
import { Picked } from '../../ui/Picked.tsx';
import { TaskSentence } from '../../ui/TaskSentence.tsx';
import { AllPositions } from './AllPositions.tsx';
import { Climbs, ClimbWords } from './Climbs.tsx';
import { FromHand, HandWords } from './FromHand.tsx';
import { Kept } from './Kept.tsx';
import { type LadderParams, VIEWS } from './params.ts';
import { Plan } from './Plan.tsx';
import { PlanWords } from './PlanWords.tsx';
import { Regions, RegionWords } from './Regions.tsx';
import { Roots, RootWords } from './Roots.tsx';
import { SeamWords, TwoPositions } from './TwoPositions.tsx';

/** What stands in the sentence after what is looked at, and what under it. */
const PARTS = {
  positions: [() => '.', AllPositions],
  seam: [SeamWords, TwoPositions],
  roots: [RootWords, Roots],
  hand: [HandWords, FromHand],
  regions: [RegionWords, Regions],
  climbs: [ClimbWords, Climbs],
  plan: [PlanWords, Plan],
} as const;

/** The ladder: what of it is looked at, and what there is to say. */
export const Panel = memo(function Panel(props: PanelProps<LadderParams>) {
  const { params, onParams, model } = props;
  const [Words, Part] = PARTS[params.view];
  const { before, said } = VIEWS.find(({ id }) => id === params.view)!;
  const isClimb = params.view === 'climbs' || params.view === 'plan';
  return (
    <div className="flex flex-col gap-3">
      <TaskSentence acts={isClimb && <Kept {...props} />}>
        {before}
        <Picked
          name="Look at"
          weight="first"
          said={said}
          value={params.view}
          options={VIEWS}
          onPick={(view) => onParams({ ...params, view })}
        />
        {model.positions.ok ? <Words {...props} /> : '.'}
      </TaskSentence>
      {model.positions.ok && <Part {...props} />}
    </div>
  );
});

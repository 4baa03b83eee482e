import { memo } from 'react';
import { type PanelProps } from '../../task/task.ts';
import { Views } from '../../ui/Views.tsx';
import { AllPositions } from './AllPositions.tsx';
import { Climbs } from './Climbs.tsx';
import { FromHand } from './FromHand.tsx';
import { type LadderParams, VIEWS } from './params.ts';
import { Plan } from './Plan.tsx';
import { Regions } from './Regions.tsx';
import { Roots } from './Roots.tsx';
import { TwoPositions } from './TwoPositions.tsx';

const PARTS = {
  positions: AllPositions,
  seam: TwoPositions,
  roots: Roots,
  hand: FromHand,
  regions: Regions,
  climbs: Climbs,
  plan: Plan,
} as const;

/** The ladder: what of it is looked at, and what there is to say. */
export const Panel = memo(function Panel(props: PanelProps<LadderParams>) {
  const { params, onParams, model } = props;
  const Part = PARTS[params.view];
  return (
    <div className="flex flex-col gap-4">
      <Views
        label="Look at"
        views={VIEWS}
        now={params.view}
        onView={(view) => onParams({ ...params, view })}
      />
      {model.positions.ok && <Part {...props} />}
    </div>
  );
});

import { memo } from 'react';
import { type PanelProps } from '../../frame/task.ts';
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
      <div role="group" aria-label="Look at" className="flex flex-wrap gap-1.5">
        {VIEWS.map(({ id, name }) => (
          <button
            key={id}
            type="button"
            className="button"
            aria-pressed={id === params.view}
            onClick={() => onParams({ ...params, view: id })}
          >
            {name}
          </button>
        ))}
      </div>
      {model.positions.ok && <Part {...props} />}
    </div>
  );
});

import { type ChartState } from '@crow-ladder/contract';
import { noteName, pretty, rootsIn, spotSaid, keySaid } from '@crow-ladder/core';
import { keysInOrder, toKey } from '@crow-ladder/core/moves';
import { useMemo } from 'react';
import { useNavigate } from 'react-router';
import { type PanelProps } from '../../task/task.ts';
import { movingOf } from '../../model/model.ts';
import { Picked } from '../../ui/Picked.tsx';
import { type MoveParams, ORDERS } from './params.ts';
import { afterOf } from './seen.ts';
import { SmallNeck } from '../../task/SmallNeck.tsx';
import { useKeepCopy } from './WaysOut.tsx';

/** In which order the keys stand. */
export const KeyOrderWord = ({ params, onParams }: PanelProps<MoveParams>) => (
  <>
    {' '}
    in the order of{' '}
    <Picked
      name="In the order of"
      then="."
      value={params.order}
      options={ORDERS}
      onPick={(order) => onParams({ ...params, order })}
    />
  </>
);

/** One shape in all twelve keys, each on a small neck, ready to be opened or kept. */
export function AllKeys({ model, params, settings }: PanelProps<MoveParams>) {
  const keep = useKeepCopy(settings);
  const navigate = useNavigate();
  const open = (state: ChartState): void => void navigate(`/charts/${keep(state)}/shape`);
  const moving = movingOf(model)!;
  const all = useMemo(
    () =>
      keysInOrder(params.order).map((up) => {
        // The nearer way, so that shapes lie close to where this one does.
        const outcome = toKey(moving, {
          by: up > 6 ? up - 12 : up,
          prefer: settings.spelling,
          octaves: false,
        });
        return { outcome, after: afterOf(model, outcome, settings) };
      }),
    [model, moving, params.order, settings],
  );
  return (
    <ul
      aria-label="The twelve keys"
      className="grid gap-x-5 gap-y-3 sm:grid-cols-2 md:grid-cols-3 lg:grid-cols-4"
    >
      {all.map(({ outcome, after }) => {
        const name = keySaid(after.key);
        const [root] = after.front ? rootsIn(after.front.position) : [];
        return (
          <li key={noteName(after.key.root)}>
            <div className="flex flex-wrap items-baseline gap-x-2.5 text-sm">
              <h3 className="text-base font-semibold">{pretty(noteName(after.key.root))}</h3>
              <span className="grow text-soft">{root ? spotSaid(root) : 'no root in it'}</span>
              <button
                type="button"
                className="word"
                aria-label={`Keep ${name} as a chart and open it`}
                onClick={() => open(after.state)}
              >
                Open
              </button>
              <button
                type="button"
                className="word"
                aria-label={`Keep ${name} as a chart`}
                onClick={() => keep(after.state)}
              >
                Keep
              </button>
            </div>
            <SmallNeck
              model={after}
              settings={settings}
              spots={outcome.spots}
              name={`The shape in ${name}`}
            />
          </li>
        );
      })}
    </ul>
  );
}

import { type Key } from '@crow-ladder/core';
import { type PanelProps } from '../../task/task.ts';
import { OutcomeSaid } from './Outcome.tsx';
import { type MoveParams } from './params.ts';
import { modesOf, outcomeOf } from './seen.ts';
import { keySaid } from './words.ts';

const LISTS = [
  { same: 'notes', name: 'Same notes, another root' },
  { same: 'root', name: 'Same root, other notes, from bright to dark' },
] as const;

/** Another mode: over the same notes, or on the same root. */
export function ModeMove(props: PanelProps<MoveParams>) {
  const { model, params, onParams, settings } = props;
  const modes = modesOf(model.key);
  const isHere = (k: Key): boolean =>
    k.root === model.key.root && k.scale.offsets.join() === model.scale.offsets.join();
  return (
    <div className="grid gap-x-10 gap-y-4 *:min-w-0 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
      <div className="flex flex-col gap-3">
        {LISTS.map(({ same, name }) => (
          <div key={same} role="group" aria-label={name}>
            <p className="mb-1 text-sm font-semibold">{name}</p>
            <div className="flex flex-wrap gap-1.5">
              {modes[same].map((k, to) =>
                isHere(k) || (same === 'notes' && to === 0) ? (
                  <span key={to} className="button border-dashed text-soft" aria-current="true">
                    {keySaid(k)}
                  </span>
                ) : (
                  <button
                    key={to}
                    type="button"
                    className="button"
                    aria-pressed={params.mode?.same === same && params.mode.to === to}
                    onClick={() => onParams({ ...params, mode: { same, to } })}
                  >
                    {keySaid(k)}
                  </button>
                ),
              )}
            </div>
          </div>
        ))}
      </div>
      <OutcomeSaid
        {...props}
        outcome={outcomeOf(model, params, settings)}
        onLeave={() => onParams({ ...params, mode: null })}
        nothing="Choose a mode: the position stays where it is, and its notes get other degrees, or move by a half step."
      />
    </div>
  );
}

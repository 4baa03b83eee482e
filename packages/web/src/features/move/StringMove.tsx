import { type PanelProps } from '../../task/task.ts';
import { OutcomeSaid } from './Outcome.tsx';
import { type MoveParams } from './params.ts';
import { outcomeOf } from './seen.ts';

/** The same shape from a root on another string. */
export function StringMove(props: PanelProps<MoveParams>) {
  const { model, params, onParams, settings } = props;
  const { state, neck } = model;
  return (
    <div className="grid gap-x-10 gap-y-4 *:min-w-0 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
      <div className="flex flex-col gap-3">
        <div role="group" aria-label="The root’s string">
          <p className="mb-1 text-sm font-semibold">The root’s string; now it is string {state.at.string}</p>
          <div className="flex flex-wrap gap-1.5">
            {neck.rising
              .filter((s) => s !== state.at.string)
              .map((string) => (
                <button
                  key={string}
                  type="button"
                  className="button"
                  aria-pressed={params.string === string}
                  onClick={() => onParams({ ...params, string })}
                >
                  String {string}
                </button>
              ))}
          </div>
        </div>
        <label className="flex gap-2 text-sm">
          <input
            type="checkbox"
            checked={params.keepKey}
            onChange={(e) => onParams({ ...params, keepKey: e.target.checked })}
          />
          Keep the key: the shape goes along the neck until its root is the same note
        </label>
      </div>
      <OutcomeSaid
        {...props}
        outcome={outcomeOf(model, params, settings)}
        onLeave={() => onParams({ ...params, string: null })}
        nothing="Choose the string that the root goes to: the frets stay, but for the jogs that are crossed."
      />
    </div>
  );
}

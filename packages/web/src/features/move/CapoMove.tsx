import { capoFor, noteName, pretty } from '@crow-ladder/core';
import { type PanelProps } from '../../task/task.ts';
import { movingOf } from '../../model/model.ts';
import { Field, Whole } from '../../ui/fields.tsx';
import { OutcomeSaid } from './Outcome.tsx';
import { type MoveParams } from './params.ts';
import { keysAway, outcomeOf } from './seen.ts';

/** Which capo keeps this grip in another key. */
export function CapoMove(props: PanelProps<MoveParams>) {
  const { model, params, onParams, settings } = props;
  const moving = movingOf(model)!;
  const { capo } = model.state.instrument;
  return (
    <div className="grid gap-x-10 gap-y-4 *:min-w-0 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
      <div className="flex flex-col gap-3">
        <p>
          {capo ? `The capo is at fret ${capo}.` : 'There is no capo.'} Every fret of the grip stays, counted
          from the capo.
        </p>
        <Field label="Highest fret for the capo">
          <Whole
            value={params.mostCapo}
            min={0}
            max={24}
            onChange={(mostCapo) => onParams({ ...params, mostCapo })}
          />
        </Field>
        <ul aria-label="Keys with their capo" className="flex flex-wrap gap-1.5">
          {keysAway(model, settings.spelling).map(({ root }, by) => {
            const it = capoFor(moving, root, params.mostCapo);
            const fret = it.ok ? it.value.instrument.capo : null;
            return (
              <li key={by}>
                <button
                  type="button"
                  className="button"
                  aria-pressed={by === params.capoTo}
                  onClick={() => onParams({ ...params, capoTo: by })}
                >
                  {pretty(noteName(root))}:{' '}
                  {fret === null ? 'too high' : fret === 0 ? 'no capo' : `capo ${fret}`}
                </button>
              </li>
            );
          })}
        </ul>
      </div>
      <OutcomeSaid
        {...props}
        outcome={outcomeOf(model, params, settings)}
        onLeave={() => onParams({ ...params, view: 'key' })}
        nothing=""
      />
    </div>
  );
}

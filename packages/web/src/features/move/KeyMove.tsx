import { halfStepsTo, mod, noteName, onNeck, pretty } from '@crow-ladder/core';
import { useState } from 'react';
import { type PanelProps } from '../../task/task.ts';
import { movingOf } from '../../model/model.ts';
import { Choice, Field, Whole } from '../../ui/fields.tsx';
import { OutcomeSaid } from './Outcome.tsx';
import { type MoveParams } from './params.ts';
import { keysAway, outcomeOf } from './seen.ts';

const STEPS = [
  { by: -1, name: 'Half step down' },
  { by: 1, name: 'Half step up' },
  { by: 5, name: 'Fourth up' },
  { by: 7, name: 'Fifth up' },
] as const;

/** Half steps kept within an octave either way. */
const within = (by: number): number => (by > 12 ? by - 12 : by < -12 ? by + 12 : by);

/** Another key: chosen by name, gone to by steps, or by where the root shall lie. */
export function KeyMove(props: PanelProps<MoveParams>) {
  const { model, params, onParams, settings } = props;
  const { by } = params;
  const put = (next: number): void => onParams({ ...params, by: within(next) });
  const outcome = outcomeOf(model, params, settings);
  const keys = keysAway(model, settings.spelling).map(({ root }, n) => ({
    id: String(n),
    name: pretty(noteName(root)),
  }));
  // Up or down, whichever is nearer; the arrows of a step keep their way.
  const choose = (n: number): void => put(n > 6 ? n - 12 : n);
  const lost = outcome?.ok && outcome.value.says.some((s) => s.is === 'lost' || s.is === 'octave');
  return (
    <div className="grid gap-x-10 gap-y-4 *:min-w-0 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
      <div className="flex flex-col gap-3">
        <div className="grid grid-cols-2 items-end gap-3">
          <Field label="Key">
            <Choice value={String(mod(by, 12))} options={keys} onChange={(n) => choose(Number(n))} />
          </Field>
          <Field label="Half steps, negative down">
            <Whole value={by} min={-12} max={12} onChange={put} />
          </Field>
        </div>
        <div className="flex flex-wrap gap-1.5">
          {STEPS.map((s) => (
            <button key={s.by} type="button" className="button" onClick={() => put(by + s.by)}>
              {s.name}
            </button>
          ))}
        </div>
        <RootTo {...props} onBy={put} />
        {(lost || params.octaves) && (
          <label className="flex gap-2 text-sm">
            <input
              type="checkbox"
              checked={params.octaves}
              onChange={(e) => onParams({ ...params, octaves: e.target.checked })}
            />
            Take single notes that fall off an octave away
          </label>
        )}
      </div>
      <OutcomeSaid
        {...props}
        outcome={outcome}
        onLeave={() => onParams({ ...params, by: 0, octaves: false })}
        nothing="Choose another key, or go to it by steps: the neck shows before and after."
      />
    </div>
  );
}

/** The root sent to a string and a fret. */
function RootTo({ model, onBy }: PanelProps<MoveParams> & { onBy: (by: number) => void }) {
  const { state, neck } = model;
  const [to, setTo] = useState(state.at);
  const moving = movingOf(model)!;
  const fits = onNeck(neck, to.string, to.fret);
  return (
    <div className="flex flex-wrap items-end gap-3">
      <Field label="Root on string">
        <Whole
          value={Math.min(to.string, neck.open.length)}
          min={1}
          max={neck.open.length}
          onChange={(string) => setTo({ ...to, string })}
        />
      </Field>
      <Field label="at fret">
        <Whole
          value={Math.min(to.fret, neck.frets)}
          min={0}
          max={neck.frets}
          onChange={(fret) => setTo({ ...to, fret })}
        />
      </Field>
      <button type="button" className="button" disabled={!fits} onClick={() => onBy(halfStepsTo(moving, to))}>
        Put the root there
      </button>
    </div>
  );
}

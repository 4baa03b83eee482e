import { CLIMBS, type Climb, type Direction, pretty, usualClimb } from '@crow-ladder/core';
import { geometryOf } from '@crow-ladder/picture';
import { Trash2 } from 'lucide-react';
import { useState } from 'react';
import { type PanelProps } from '../../frame/task.ts';
import { figureOf } from '../../model/figure.ts';
import { type Change, withFront } from '../../model/moves.ts';
import { Choice, Field } from '../../ui/fields.tsx';
import { OptionFields } from '../../ui/OptionFields.tsx';
import {
  alteredScale,
  beginOf,
  climbed,
  climbingOf,
  type KeptClimb,
  keptClimbs,
  toKeep,
  turned,
} from './climbed.ts';
import { type LadderParams } from './params.ts';
import { Stairs } from './Stairs.tsx';
import { Way } from './Way.tsx';

const DIRECTIONS: readonly { readonly id: Direction; readonly name: string }[] = [
  { id: 'up', name: 'up' },
  { id: 'down', name: 'down' },
  { id: 'both', name: 'up and back' },
];
const NAME_LENGTH = 60;

/** The climbs: ways along the neck from the position in front, shown, read, stepped through and kept. */
export function Climbs(props: PanelProps<LadderParams>) {
  const { model, params, onParams, look } = props;
  const climbing = climbingOf(model);
  const now = climbed(model, params);
  if (!climbing || !now) return null;
  const { climb, spec, played } = now;
  const put = (part: Partial<LadderParams>): void => onParams({ ...params, step: 0, ...part });
  const pick = (it: Climb): void => put({ climb: usualClimb(it, climbing) });
  const { state, accidentals } = model;
  const made = alteredScale(model, spec);
  return (
    <div className="flex flex-col gap-4">
      {played.ok && (
        <Stairs
          fingering={played.value.fingering}
          geometry={geometryOf(figureOf(state.instrument, accidentals, look))}
          step={params.step}
        />
      )}
      <div className="grid *:min-w-0 gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
        <div className="flex flex-col gap-3">
          <div role="group" aria-label="Ways along the neck" className="flex flex-wrap gap-1.5">
            {CLIMBS.map((it) => (
              <button
                key={it.kind}
                type="button"
                className="button"
                aria-pressed={it === climb}
                onClick={() => pick(it)}
              >
                {it.name}
              </button>
            ))}
          </div>
          <p>Good for {climb.goodFor}.</p>
          {made !== undefined && (
            <p>
              {made === null
                ? 'Altered so, it makes no scale of the catalogue.'
                : `Altered so, it is ${pretty(`${state.key.root} ${made}`)}.`}
            </p>
          )}
          <div className="grid grid-cols-2 items-end gap-3">
            <OptionFields
              options={climb.options}
              spec={spec}
              strings={model.neck.open.length}
              degrees={model.degrees}
              onSpec={(next) => put({ climb: next })}
            />
            <Field label="Direction">
              <Choice
                value={params.direction}
                options={DIRECTIONS}
                onChange={(direction) => put({ direction })}
              />
            </Field>
            {params.direction === 'both' && (
              <label className="flex gap-2 text-sm">
                <input
                  type="checkbox"
                  checked={params.topTwice}
                  onChange={(e) => put({ topTwice: e.target.checked })}
                />{' '}
                Strike the top note twice
              </label>
            )}
            <label className="flex gap-2 text-sm">
              <input
                type="checkbox"
                checked={params.slurred}
                onChange={(e) => put({ slurred: e.target.checked })}
              />{' '}
              Pick only the first note on each string
            </label>
          </div>
          <Kept {...props} />
        </div>
        {played.ok ? (
          <Way
            {...props}
            played={played.value}
            name={climb.name}
            otherwise={params.direction === 'both' ? null : turned(model, params)}
          />
        ) : (
          <p className="error">{played.error.message}</p>
        )}
      </div>
    </div>
  );
}

const withRuns =
  (change: (runs: readonly object[]) => readonly object[]): Change =>
  (s) => ({ ...s, runs: change(s.runs) as typeof s.runs });

/** The climbs kept with the chart, and a name to keep this one under. */
function Kept({ model, params, onParams, onChange }: PanelProps<LadderParams>) {
  const [name, setName] = useState('');
  const kept = keptClimbs(model.state);
  const taken = kept.some((k) => k.kept.name === name.trim());
  const keep = (): void => {
    const it = toKeep(model, params, name.trim());
    if (!it || !it.name || taken) return;
    onChange(withRuns((runs) => [...runs, it]));
    setName('');
  };
  const show = (it: KeptClimb): void => {
    const front = beginOf(model, it);
    if (front) onChange((s) => withFront(s, front));
    const { climb, direction, topTwice, slurred } = it;
    onParams({ ...params, climb, direction, topTwice, slurred, step: 0 });
  };
  return (
    <section aria-label="Climbs saved with the chart" className="flex flex-col gap-2">
      <form
        className="flex items-end gap-2"
        onSubmit={(e) => {
          e.preventDefault();
          keep();
        }}
      >
        <Field
          label="Save this climb with the chart as"
          error={taken ? 'A climb of this chart has this name already: choose another one.' : undefined}
        >
          <input
            className="input"
            value={name}
            maxLength={NAME_LENGTH}
            onChange={(e) => setName(e.target.value)}
          />
        </Field>
        <button type="submit" className="button" disabled={!name.trim() || taken}>
          Save climb
        </button>
      </form>
      {kept.length > 0 && (
        <ul className="flex flex-col gap-1">
          {kept.map(({ at, kept: it }) => (
            <li key={it.name} className="flex items-center gap-2">
              <button type="button" className="word" onClick={() => show(it)}>
                {it.name}
              </button>
              <button
                type="button"
                className="button button-quiet"
                aria-label={`Delete the climb ${it.name}`}
                onClick={() => onChange(withRuns((runs) => runs.filter((_, i) => i !== at)))}
              >
                <Trash2 size={16} aria-hidden />
              </button>
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

import { usualOf } from '@crow-ladder/core/kinds';
import { CLIMBS, type Climb } from '@crow-ladder/core/climbs';
import { type Direction, STRIKES } from '@crow-ladder/core/run';
import { geometryOf } from '@crow-ladder/picture';
import { type PanelProps } from '../../task/task.ts';
import { readOf } from '../../model/way.ts';
import { Way } from '../../ui/Way.tsx';
import { figureOf } from '../../model/figure.ts';
import { Choice, Field } from '../../ui/fields.tsx';
import { OptionFields } from '../../ui/OptionFields.tsx';
import { climbingOf } from '../../model/climbing.ts';
import { alteredSaid } from '../../model/altered.ts';
import { climbed, turned } from './climbed.ts';
import { Kept } from './Kept.tsx';
import { type LadderParams } from './params.ts';
import { Stairs } from './Stairs.tsx';

const DIRECTIONS: readonly { readonly id: Direction; readonly name: string }[] = [
  { id: 'up', name: 'up' },
  { id: 'down', name: 'down' },
  { id: 'both', name: 'up and back' },
];

/** The climbs: ways along the neck from the position in front, shown, read, stepped through and kept. */
export function Climbs(props: PanelProps<LadderParams>) {
  const { model, params, onParams, look } = props;
  const climbing = climbingOf(model);
  const now = climbed(model, params);
  if (!climbing || !now) return null;
  const { climb, spec, played } = now;
  const put = (part: Partial<LadderParams>): void => onParams({ ...params, step: 0, ...part });
  const pick = (it: Climb): void => put({ climb: usualOf(it, climbing) });
  const geometry = geometryOf(figureOf(model.state.instrument, model.accidentals, look));
  return (
    <div className="flex flex-col gap-4">
      {played.ok && !geometry.vertical && (
        <Stairs steps={played.value.fingering.steps} geometry={geometry} step={params.step} />
      )}
      <div className="grid *:min-w-0 gap-x-10 gap-y-4 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
        <div className="flex flex-col gap-3">
          <div role="group" aria-label="Ways along the neck" className="flex flex-wrap gap-1.5">
            {CLIMBS.all().map((it) => (
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
          {alteredSaid(model, spec).map((text) => (
            <p key={text}>{text}</p>
          ))}
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
            <Field
              label="How the notes are struck"
              hint={
                played.ok && params.touch !== 'picked' && played.value.run.every((s) => s.arrive === 'pick')
                  ? 'No string has two notes in a row here, so every note is picked.'
                  : undefined
              }
            >
              <Choice value={params.touch} options={STRIKES} onChange={(touch) => put({ touch })} />
            </Field>
          </div>
          <Kept {...props} />
        </div>
        {played.ok ? (
          <Way
            read={readOf(model, played.value.fingering, played.value.run)}
            step={params.step}
            onStep={(step) => onParams({ ...params, step })}
            name={climb.name}
            otherwise={params.direction === 'both' ? null : turned(model, spec, params)}
          />
        ) : (
          <p className="error">{played.error.message}</p>
        )}
      </div>
    </div>
  );
}

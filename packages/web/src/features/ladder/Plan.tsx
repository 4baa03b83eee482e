import { list, plural } from '@crow-ladder/core';
import { geometryOf } from '@crow-ladder/picture';
import { useEffect } from 'react';
import { type PanelProps } from '../../frame/task.ts';
import { figureOf } from '../../model/figure.ts';
import { type Model, played } from '../../model/model.ts';
import { spotSaid } from '../../model/wording.ts';
import { Choice, Field, Whole } from '../../ui/fields.tsx';
import { type PlanAnswer } from '../../workers/planner.ts';
import { usePlan } from '../../workers/usePlan.ts';
import { type LadderParams, type PlanAsked, WAYS } from './params.ts';
import { LIMIT_SAID, movesSaid, pickedPlan, PLANS, rankSaid, taskId, taskOf } from './planning.ts';
import { Stairs } from './Stairs.tsx';
import { Way } from './Way.tsx';

const OCTAVES = [
  { id: '1', name: 'one octave' },
  { id: '2', name: 'two octaves' },
  { id: '3', name: 'three octaves' },
  { id: '0', name: 'the highest note of the neck' },
];
const THERE = [
  { id: 'up', name: 'up' },
  { id: 'both', name: 'up and back' },
] as const;
const REACHES = [
  { id: '0', name: 'as it comes' },
  { id: '3', name: 'one finger per fret' },
  { id: '4', name: 'with stretches' },
];

/** A climb planned from the root under the player's limits: the easiest ways, each with its reasons, or what forbids them. */
export function Plan(props: PanelProps<LadderParams>) {
  const { model, params, onParams, look } = props;
  const { plan: asked, pick } = params;
  const task = taskOf(model, asked);
  const { work, cancel, again } = usePlan(task, PLANS);
  const answer = work.is === 'done' ? work.answer : null;
  const id = task ? taskId(task) : null;
  useEffect(() => {
    if (answer && id && params.planned?.id !== id)
      onParams({ ...params, planned: { id, plans: answer.plans }, step: 0 });
  }, [answer, id, params, onParams]);
  const shown = pickedPlan(model, params);
  const { state, accidentals } = model;
  const fingering = shown && {
    steps: shown.steps,
    cost: shown.cost,
    shifts: shown.moves.length,
    stretches: shown.widest ? 1 : 0,
  };
  return (
    <div className="flex flex-col gap-4">
      {fingering && (
        <Stairs
          fingering={fingering}
          geometry={geometryOf(figureOf(state.instrument, accidentals, look))}
          step={params.step}
        />
      )}
      <div className="grid gap-x-10 gap-y-4 *:min-w-0 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
        <Asked {...props} />
        <div className="flex flex-col gap-3">
          <div className="flex flex-wrap items-center gap-3">
            <p role="status">{stateSaid(model, task !== null, work)}</p>
            {task && work.is === 'working' && (
              <button type="button" className="button" onClick={cancel}>
                Cancel
              </button>
            )}
            {(work.is === 'calledOff' || work.is === 'failed') && (
              <button type="button" className="button" onClick={again}>
                Plan again
              </button>
            )}
          </div>
          {answer?.forbidding && <Forbidden answer={answer} />}
          {answer && answer.plans.length > 0 && (
            <ol aria-label="Planned climbs" className="flex flex-col gap-2">
              {answer.plans.map((it, i) => (
                <li key={i}>
                  <button
                    type="button"
                    className="button w-full !whitespace-normal text-left"
                    aria-pressed={it === answer.plans[Math.min(pick, answer.plans.length - 1)]}
                    onClick={() => onParams({ ...params, pick: i, step: 0 })}
                  >
                    {rankSaid(it, answer.plans[0]!)}
                  </button>
                </li>
              ))}
            </ol>
          )}
          {shown && fingering && (
            <>
              <ul aria-label="Shifts">
                {movesSaid(shown).map((said) => (
                  <li key={said}>{said}</li>
                ))}
              </ul>
              <Way {...props} played={{ fingering, run: played(fingering) }} name="planned climb" />
            </>
          )}
        </div>
      </div>
    </div>
  );
}

/** How the planning stands. */
function stateSaid(model: Model, possible: boolean, work: ReturnType<typeof usePlan>['work']): string {
  if (!possible) return 'Nothing of the scale lies above this root: choose a lower one on the neck.';
  switch (work.is) {
    case 'working':
      return `Planning: ${plural(work.found, 'way')} found so far.`;
    case 'done':
      return `${plural(work.answer.plans.length, 'way')} found from ${spotSaid(model.state.at)}.`;
    case 'calledOff':
      return 'The plan was called off.';
    case 'failed':
      return 'The planner could not be loaded.';
  }
}

function Forbidden({ answer }: { answer: PlanAnswer }) {
  const all = answer.forbidding!;
  if (!all.length) return <p className="error">No way leads there on this neck, with or without limits.</p>;
  return (
    <div>
      <p className="error">
        There is no way under {all.length === 1 ? 'this limit' : 'these limits together'}:{' '}
        {list(all.map(({ limit }) => LIMIT_SAID[limit]))}.
      </p>
      <ul aria-label="What loosening gives">
        {all.map(({ limit, gives }) => (
          <li key={limit}>
            Without {LIMIT_SAID[limit]}:{' '}
            {gives
              ? `a way with ${plural(gives.moves.length, 'shift')}.`
              : 'still none, other limits forbid it too.'}
          </li>
        ))}
      </ul>
    </div>
  );
}

/** What a climb is planned for, as fields. */
function Asked({ model, params, onParams }: PanelProps<LadderParams>) {
  const { plan } = params;
  const put = (part: Partial<PlanAsked>): void =>
    onParams({ ...params, plan: { ...plan, ...part }, pick: 0, step: 0 });
  const many = model.neck.open.length;
  const strings = plan.strings ?? [1, many];
  const onStrings = (a: number, b: number): void => put({ strings: [Math.min(a, b), Math.max(a, b)] });
  return (
    <div className="flex flex-col gap-3">
      <p>From the root on {spotSaid(model.state.at)}; choose another root on the neck to begin elsewhere.</p>
      <div className="grid grid-cols-2 items-start gap-3">
        <Field label="Up to">
          <Choice
            value={String(plan.octaves)}
            options={OCTAVES}
            onChange={(v) => put({ octaves: Number(v) })}
          />
        </Field>
        <Field label="Direction">
          <Choice value={plan.there} options={THERE} onChange={(there) => put({ there })} />
        </Field>
        <Field label="Hand">
          <Choice value={String(plan.reach)} options={REACHES} onChange={(v) => put({ reach: Number(v) })} />
        </Field>
        <Field label="Widest stretch in mm, 0 for any">
          <Whole value={plan.mm} min={0} max={200} onChange={(mm) => put({ mm })} />
        </Field>
        <Field label="Lowest string">
          <Whole
            value={Math.min(strings[1], many)}
            min={1}
            max={many}
            onChange={(n) => onStrings(strings[0], n)}
          />
        </Field>
        <Field label="Highest string">
          <Whole value={strings[0]} min={1} max={many} onChange={(n) => onStrings(n, strings[1])} />
        </Field>
        <Field label="Fewest notes on a string">
          <Whole value={plan.least} min={1} max={12} onChange={(least) => put({ least })} />
        </Field>
        <Field label="Most notes on a string, 0 for any">
          <Whole value={plan.most} min={0} max={12} onChange={(most) => put({ most })} />
        </Field>
        <Field label="Most shifts, −1 for any">
          <Whole value={plan.shifts} min={-1} max={99} onChange={(shifts) => put({ shifts })} />
        </Field>
        <Field label="Tempo in quarter notes, played in eighths">
          <Whole value={plan.tempo} min={30} max={300} onChange={(tempo) => put({ tempo })} />
        </Field>
      </div>
      <fieldset>
        <legend className="text-sm font-semibold">Shifts allowed</legend>
        {WAYS.map(({ id, name }) => (
          <label key={id} className="mr-4 inline-flex gap-2 text-sm">
            <input
              type="checkbox"
              checked={plan.ways.includes(id)}
              onChange={(e) =>
                put({
                  ways: WAYS.map((w) => w.id).filter((w) =>
                    w === id ? e.target.checked : plan.ways.includes(w),
                  ),
                })
              }
            />
            {name}
          </label>
        ))}
      </fieldset>
    </div>
  );
}

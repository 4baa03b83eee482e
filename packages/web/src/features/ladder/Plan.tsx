import { list, plural, type Result, spotSaid } from '@crow-ladder/core';
import { type PlanTask } from '@crow-ladder/core/plan';
import { stretchOf } from '@crow-ladder/core/run';
import { geometryOf } from '@crow-ladder/picture';
import { useEffect } from 'react';
import { type PanelProps } from '../../task/task.ts';
import { readOf } from '../../model/way.ts';
import { Way } from '../../ui/Way.tsx';
import { figureOf } from '../../model/figure.ts';
import { type Model, pitchName, played } from '../../model/model.ts';
import { type PlanAnswer, type PlanWork } from '../../workers/planner.ts';
import { useWork, type Work } from '../../workers/useWork.ts';
import { taskOf } from '../../model/planTask.ts';
import { type LadderParams } from './params.ts';
import { LIMIT_SAID, movesSaid, pickedPlan, PLANS, rankSaid, taskId } from './planning.ts';
import { Stairs } from './Stairs.tsx';

const startPlanner = (): Worker =>
  new Worker(new URL('../../workers/planner.ts', import.meta.url), { type: 'module' });

/** A climb planned from one end to another under the player's limits: the easiest ways, each with its reasons, or what forbids them. */
export function Plan(props: PanelProps<LadderParams>) {
  const { model, params, onParams, look } = props;
  const { plan: asked, pick, planned } = params;
  const task = taskOf(model, asked);
  const { work, cancel, again } = useWork<PlanWork, PlanAnswer>(
    startPlanner,
    task.ok ? { task: task.value, ways: PLANS } : null,
  );
  const answer = work.is === 'done' ? work.answer : null;
  const id = task.ok ? taskId(task.value) : null;
  useEffect(() => {
    if (answer && id && planned?.id !== id)
      onParams((now) => ({ ...now, planned: { id, plans: answer.plans }, step: now.planned ? 0 : now.step }));
  }, [answer, id, planned, onParams]);
  const shown = pickedPlan(model, params);
  const geometry = geometryOf(figureOf(model.state.instrument, model.accidentals, look));
  const fingering = shown && {
    steps: shown.steps,
    cost: shown.cost,
    shifts: shown.moves.length,
    stretches: shown.steps.filter((s) => stretchOf(s) !== 0).length,
  };
  return (
    <div className="flex flex-col gap-4">
      {fingering && !geometry.vertical && (
        <Stairs steps={fingering.steps} geometry={geometry} step={params.step} />
      )}
      <div className="grid gap-x-10 gap-y-4 *:min-w-0 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
        <div className="flex flex-col gap-3">
          <div className="flex flex-wrap items-center gap-3">
            <p role="status" className={task.ok ? '' : 'error'}>
              {stateSaid(model, task, work)}
            </p>
            {task.ok && work.is === 'working' && (
              <button type="button" className="button" onClick={cancel}>
                Cancel
              </button>
            )}
            {task.ok && (work.is === 'calledOff' || work.is === 'failed') && (
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
                    className="button w-full"
                    aria-pressed={it === answer.plans[Math.min(pick, answer.plans.length - 1)]}
                    onClick={() => onParams({ ...params, pick: i, step: 0 })}
                  >
                    {rankSaid(it, answer.plans[0]!)}
                  </button>
                </li>
              ))}
            </ol>
          )}
        </div>
        <div className="flex flex-col gap-3">
          {shown && fingering && (
            <>
              <ul aria-label="Shifts">
                {movesSaid(shown).map((said) => (
                  <li key={said}>{said}</li>
                ))}
              </ul>
              <Way
                read={readOf(model, fingering, played(fingering))}
                step={params.step}
                onStep={(step) => onParams({ ...params, step })}
                name="planned climb"
              />
            </>
          )}
        </div>
      </div>
    </div>
  );
}

/** How the planning stands. */
function stateSaid(model: Model, task: Result<PlanTask>, work: Work<PlanAnswer>): string {
  if (!task.ok) return task.error.message;
  switch (work.is) {
    case 'working':
      return `Planning: note ${work.done} of ${task.value.notes.length}.`;
    case 'done':
      return `${plural(work.answer.plans.length, 'way')} found ${endsSaid(model, task.value)}.`;
    case 'calledOff':
      return 'The plan was called off.';
    case 'failed':
      return 'The planner could not be loaded.';
  }
}

/** "from string 6 fret 5 to A", where the one end has a place and the other one may be taken anywhere. */
function endsSaid(model: Model, { notes }: PlanTask): string {
  const back = notes[0]!.midi === notes.at(-1)!.midi;
  const [first, last] = [notes[0]!, back ? notes[notes.length >> 1]! : notes.at(-1)!];
  const [from, to] = [first, last].map(({ places, midi }) =>
    places.length === 1 ? spotSaid(places[0]!) : pitchName(model, midi),
  );
  return `from ${from} to ${to}${back ? ' and back' : ''}`;
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

import { list, plural, spotSaid } from '@crow-ladder/core';
import { type FourthsWindow, jogRulesOf, fretsMoved, jogSaid } from '@crow-ladder/core/moves';
import { ChevronLeft, ChevronRight } from 'lucide-react';
import { type PanelProps } from '../../task/task.ts';
import { type Model } from '../../model/model.ts';
import { Picked } from '../../ui/Picked.tsx';
import { Drill } from './Drill.tsx';
import { useClock } from '../../ports/clock.ts';
import { drilledNext, drillOn } from './drilled.ts';
import { type MoveParams } from './params.ts';
import { windowOf } from './seen.ts';

const STEPS = [
  { step: 1, name: 'Anchor' },
  { step: 2, name: 'Window' },
  { step: 3, name: 'Jogs' },
] as const;
const BEFORE = [0, 1, 2, 3, 4].map((n) => ({
  id: String(n),
  name: n === 0 ? 'at the root' : `${plural(n, 'fret')} below the root`,
}));

/** What a step does, for the root and the tuning at hand. */
function stepSaid(
  { state, key }: Model,
  { step, before }: MoveParams,
  window: FourthsWindow,
): readonly string[] {
  const [low, high] = window.frets;
  if (step === 1)
    return [`The anchor: a root, here on ${spotSaid(state.at)}. Choose another one on the neck.`];
  if (step === 2)
    return [
      `The window: on the root’s string it covers frets ${low} to ${high}, and begins ${BEFORE[before]!.name}. The pattern of ${key.scale.name} is laid over it as if every string were a fourth above the one below.`,
    ];
  const moved = window.strings.filter((s) => s.by !== 0);
  return moved.length
    ? ['The jogs: each string goes by their sum.', ...moved.map((s) => jogSaid(s.string, s.by, s.jogs))]
    : ['The jogs: there are none, as every string is a fourth above the one below.'];
}

/** Where the window begins. */
export const WindowWord = ({ params, onParams }: PanelProps<MoveParams>) => (
  <>
    , its window beginning{' '}
    <Picked
      name="The window begins"
      then="."
      value={String(params.before)}
      options={BEFORE}
      onPick={(n) => onParams({ ...params, before: Number(n) })}
    />
  </>
);

/** The fourths pattern in three steps: anchor, window, jogs; the rule of this tuning; and a drill of it. */
export function Fourths(props: PanelProps<MoveParams>) {
  const { now } = useClock();
  const { model, params, onParams, settings } = props;
  const window = windowOf(model, params);
  const go = (step: number): void =>
    onParams({ ...params, step: Math.max(1, Math.min(3, step)) as MoveParams['step'] });
  const drill = drillOn(model.neck, params.drill);
  if (drill) return <Drill {...props} drill={drill} />;
  return (
    <div className="grid gap-x-10 gap-y-4 *:min-w-0 lg:grid-cols-[minmax(0,7fr)_minmax(0,5fr)]">
      <div className="flex flex-col gap-3">
        <div role="group" aria-label="Step by step" className="flex flex-wrap items-center gap-2">
          <button
            type="button"
            className="button"
            aria-label="Step before"
            aria-disabled={params.step === 1}
            onClick={() => go(params.step - 1)}
          >
            <ChevronLeft size={17} aria-hidden />
          </button>
          {STEPS.map(({ step, name }) => (
            <button
              key={step}
              type="button"
              className="button"
              aria-pressed={step === params.step}
              onClick={() => go(step)}
            >
              {step} {name}
            </button>
          ))}
          <button
            type="button"
            className="button"
            aria-label="Next step"
            aria-disabled={params.step === 3}
            onClick={() => go(params.step + 1)}
          >
            <ChevronRight size={17} aria-hidden />
          </button>
        </div>
        <div role="status" aria-label="This step">
          {window.ok ? (
            stepSaid(model, params, window.value).map((text) => <p key={text}>{text}</p>)
          ) : (
            <p className="error">{window.error.message}</p>
          )}
        </div>
      </div>
      <div className="flex flex-col gap-3">
        <section aria-label="The rule of this tuning">
          <h2 className="text-lg font-semibold">The rule of this tuning</h2>
          <ul className="list-disc pl-5">
            {jogRulesOf(model.neck).map(({ roots, moves }) => (
              <li key={roots.join()}>
                Root on {roots.length === 1 ? 'string' : 'strings'} {list(roots)}:{' '}
                {moves.length
                  ? moves
                      .map(
                        ({ strings, by }) =>
                          `${strings.length === 1 ? 'string' : 'strings'} ${list(strings)} ${strings.length === 1 ? 'moves' : 'move'} ${fretsMoved(by)}`,
                      )
                      .join(', ')
                  : 'no string moves'}
                .
              </li>
            ))}
          </ul>
        </section>
        <button
          type="button"
          className="button button-strong self-start"
          disabled={!window.ok}
          onClick={() =>
            onParams({
              ...params,
              drill: drilledNext(model.neck, model.scale, settings.spelling, false, now()),
            })
          }
        >
          Drill it
        </button>
      </div>
    </div>
  );
}

import { MOST_OTHERS } from '@crow-ladder/contract';
import {
  gained,
  type Instrument,
  keepGrip,
  keepNotes,
  list,
  mod,
  type Outcome,
  usualSpec,
  tuningSaid,
} from '@crow-ladder/core';
import { useMemo } from 'react';
import { server } from '../../app/api.ts';
import { type PanelProps } from '../../task/task.ts';
import { applied, movingOf, pitchName } from '../../model/model.ts';
import { withBoth } from '../../model/moves.ts';
import { type MoveParams } from './params.ts';
import { afterOf, suitedBest } from './seen.ts';
import { SmallNeck } from './SmallNeck.tsx';
import { TargetField } from './TargetField.tsx';
import { targetOf } from './target.ts';
import { WaysOut } from './WaysOut.tsx';
import { keySaid, sayings } from './words.ts';

const NONE: readonly never[] = [];

/** Another tuning or instrument: the notes kept and the grip kept, side by side with how it is now. */
export function TuningMove(props: PanelProps<MoveParams>) {
  const { model, params, onParams, settings } = props;
  const { data: own = NONE, isSuccess: known } = server.useInstrumentsQuery();
  const { state, accidentals } = model;
  const target = useMemo(
    () => targetOf(params.to, state.instrument, own),
    [params.to, state.instrument, own],
  );
  const ways = useMemo(() => {
    const moving = movingOf(model);
    if (!target || !moving) return null;
    return {
      notes: keepNotes(moving, target.instrument),
      grip: keepGrip(moving, target.instrument, settings.spelling),
    };
  }, [model, target, settings.spelling]);
  return (
    <div className="flex flex-col gap-4">
      <div className="max-w-md">
        <TargetField
          label="To the tuning or instrument"
          value={params.to}
          on={state.instrument}
          own={own}
          none="choose one"
          onValue={(to) => onParams({ ...params, to })}
        />
      </div>
      {params.to && !target && known && (
        <p className="error">This instrument is not there any more: choose another one.</p>
      )}
      <div className="grid gap-x-8 gap-y-6 *:min-w-0 lg:grid-cols-3">
        <section aria-label="Now" className="flex flex-col gap-2">
          <h2 className="text-lg font-semibold">Now</h2>
          <SmallNeck model={model} settings={settings} name="The position as it is now" />
          <p>
            {keySaid(model.key)} in {tuningSaid(state.instrument.tuning, accidentals)}.
          </p>
        </section>
        {ways && target && (
          <>
            <Side {...props} title="Keep the notes" outcome={ways.notes} target={target} what=": the notes" />
            <Side {...props} title="Keep the grip" outcome={ways.grip} target={target} what=": the grip" />
          </>
        )}
      </div>
    </div>
  );
}

interface SideProps extends PanelProps<MoveParams> {
  readonly title: string;
  readonly outcome: Outcome;
  readonly target: { readonly instrument: Instrument; readonly id: string | null };
  readonly what: string;
}

/** One of the two ways: how it lies, what it says, and the ways out. */
function Side({ model, settings, onChange, onParams, params, title, outcome, target, what }: SideProps) {
  const after = afterOf(model, outcome, settings);
  const says = sayings(outcome, model);
  const come = [...new Set(gained(outcome).map((s) => mod(s.midi, 12)))].map((pc) => pitchName(after, pc));
  const leave = (): void => onParams({ ...params, to: null });
  const strains = outcome.says.some((s) => s.is === 'beyond' || (s.is === 'scale' && !s.key));
  const anew = strains ? suitedBest(after, settings.spanMm) : null;
  const full = model.state.others.length >= MOST_OTHERS;
  const layAnew = (): Outcome => ({
    ...outcome,
    layout: usualSpec(anew!.layout, {
      scale: after.scale,
      string: outcome.root.string,
      strings: target.instrument.tuning.length,
    }),
  });
  return (
    <section aria-label={title} className="flex flex-col gap-2">
      <h2 className="text-lg font-semibold">{title}</h2>
      <SmallNeck
        model={after}
        settings={settings}
        spots={outcome.spots}
        name={`${title}: how it lies then`}
      />
      <div role="status" aria-label={`What happens: ${title}`}>
        <p>
          {keySaid(outcome.key)} in {tuningSaid(target.instrument.tuning, after.accidentals)}.
        </p>
        {says.length ? (
          says.map((text) => <p key={text}>{text}</p>)
        ) : (
          <p>Nothing changes on these strings.</p>
        )}
        {come.length > 0 && <p>New notes: {list(come)}.</p>}
      </div>
      {anew && (
        <div>
          <button
            type="button"
            className="button"
            onClick={() => {
              leave();
              onChange((s) => applied(s, layAnew(), settings, target.id));
            }}
          >
            Lay it out anew: {anew.layout.name}
          </button>
          <p className="mt-1 text-sm text-soft">It suits best: {anew.why}</p>
        </div>
      )}
      <WaysOut
        model={model}
        outcome={outcome}
        settings={settings}
        onChange={onChange}
        onLeave={leave}
        what={what}
        instrumentId={target.id}
      />
      <button
        type="button"
        className="button self-start"
        disabled={full}
        onClick={() => {
          leave();
          onChange((s) => withBoth(s, applied(s, outcome, settings, target.id)));
        }}
      >
        Keep both instruments in this chart{what}
      </button>
      {full && (
        <p className="text-sm">A chart holds at most {MOST_OTHERS} instruments beside the one it shows.</p>
      )}
    </section>
  );
}

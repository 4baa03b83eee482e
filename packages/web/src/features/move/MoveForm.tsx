import { type KeptInstrument } from '@crow-ladder/contract';
import { tuningSaid, keySaid } from '@crow-ladder/core';
import { type Option } from '@crow-ladder/core/kinds';
import { type AnyMove, type MoveSpec } from '@crow-ladder/core/moves';
import { server } from '../../app/api.ts';
import { type PanelProps } from '../../task/task.ts';
import { OptionFields } from '../../ui/OptionFields.tsx';
import { OutcomeSaid } from './Outcome.tsx';
import { type MoveParams } from './params.ts';
import { PICKS } from './picks.tsx';
import { outcomeOf } from './seen.ts';
import { Side } from './Side.tsx';
import { SmallNeck } from './SmallNeck.tsx';
import { targetOf } from './target.ts';

const NONE: readonly KeptInstrument[] = [];

interface MoveFormProps extends PanelProps<MoveParams> {
  readonly move: AnyMove;
  readonly spec: MoveSpec;
}

/** Any move: what it asks for as fields, what it comes to in words and pictures, and the ways out. */
export function MoveForm({ move, spec, ...props }: MoveFormProps) {
  const { model, settings, params, onParams, onChange } = props;
  const { data: own = NONE, isSuccess: known } = server.useInstrumentsQuery();
  const put = (next: MoveSpec | null): void => onParams({ ...params, move: next });
  const options = Object.entries<Option>(move.options);
  const apart = options.find(([, option]) => option.type === 'choice' && option.apart);
  const toWord = options.find(([, option]) => option.picks === 'instrument')?.[0];
  const target = toWord === undefined ? null : targetOf(spec[toWord] as string, model.state.instrument, own);
  // The player's own instruments come a moment later than the page.
  const comes = (it: MoveSpec) =>
    toWord !== undefined && !target && !known ? null : outcomeOf(model, it, settings, own);
  const fields = options
    .filter(([name]) => name !== apart?.[0])
    .map(([name, option]) => {
      const Pick = option.picks && PICKS[option.picks];
      return Pick ? (
        <Pick
          key={name}
          {...{ model, settings, move, spec, name, option, own }}
          onValue={(value) => put({ ...spec, [name]: value })}
          outcome={(value) => comes({ ...spec, [name]: value })}
        />
      ) : (
        <OptionFields
          key={name}
          options={{ [name]: option }}
          spec={spec}
          strings={model.neck.open.length}
          degrees={model.degrees}
          onSpec={put}
        />
      );
    });
  const ways = { model, settings, onChange, onLeave: () => put(null), move };
  if (!apart)
    return (
      <div className="grid gap-x-10 gap-y-4 *:min-w-0 lg:grid-cols-[minmax(0,5fr)_minmax(0,7fr)]">
        <div className="flex flex-col gap-3">{fields}</div>
        <OutcomeSaid {...ways} outcome={comes(spec)} />
      </div>
    );
  const [name, { values }] = apart as [string, Extract<Option, { type: 'choice' }>];
  const sides = values.map(({ id, name: title }) => ({ title, outcome: comes({ ...spec, [name]: id }) }));
  const refused = sides.find(({ outcome }) => outcome && !outcome.ok)?.outcome;
  return (
    <div className="flex flex-col gap-4">
      <div className="flex max-w-md flex-col gap-3">{fields}</div>
      {refused && !refused.ok && <p className="error">{refused.error.message}</p>}
      <div className="grid gap-x-8 gap-y-6 *:min-w-0 lg:grid-cols-3">
        <section aria-label="Now" className="flex flex-col gap-2">
          <h2 className="text-lg font-semibold">Now</h2>
          <SmallNeck model={model} settings={settings} name="The position as it is now" />
          <p>
            {keySaid(model.key)} in {tuningSaid(model.state.instrument.tuning, model.accidentals)}.
          </p>
        </section>
        {sides.map(
          ({ title, outcome }) =>
            outcome?.ok && (
              <Side
                key={title}
                {...ways}
                title={title}
                outcome={outcome.value}
                instrumentId={target?.id ?? null}
              />
            ),
        )}
      </div>
    </div>
  );
}

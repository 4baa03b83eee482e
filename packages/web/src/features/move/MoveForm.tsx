import { type KeptInstrument } from '@crow-ladder/contract';
import { keySaid, list, tuningSaid } from '@crow-ladder/core';
import { type Option, type OptionValue } from '@crow-ladder/core/kinds';
import { type AnyMove, type MoveSpec } from '@crow-ladder/core/moves';
import { Fragment, type ReactNode } from 'react';
import { server } from '../../app/api.ts';
import { type PanelProps } from '../../task/task.ts';
import { NumberWord } from '../../ui/NumberWord.tsx';
import { OptionFields } from '../../ui/OptionFields.tsx';
import { Picked } from '../../ui/Picked.tsx';
import { TaskSentence } from '../../ui/TaskSentence.tsx';
import { Word } from '../../ui/Word.tsx';
import { OutcomeSaid } from './Outcome.tsx';
import { type MoveParams } from './params.ts';
import { PICKS } from './picks.tsx';
import { outcomeOf } from './seen.ts';
import { Side } from './Side.tsx';
import { SmallNeck } from '../../task/SmallNeck.tsx';
import { targetOf } from './target.ts';
import { WaysOut } from './WaysOut.tsx';

const NONE: readonly KeptInstrument[] = [];

interface MoveFormProps extends PanelProps<MoveParams> {
  readonly move: AnyMove;
  readonly spec: MoveSpec;
  /** What begins the sentence. */
  readonly view: ReactNode;
}

type WordOption = Extract<Option, { type: 'choice' | 'whole' }>;
/** Whether an option stands in the sentence; the others fold into its last word. */
const isWord = (option: Option): boolean =>
  option.picks !== undefined || option.type === 'choice' || option.type === 'whole';

interface OptionWordProps {
  readonly option: WordOption;
  readonly value: OptionValue;
  readonly then: string;
  readonly strings: number;
  readonly onValue: (value: OptionValue) => void;
}

/** An option in the sentence, where it has no picker. */
function OptionWord({ option, value, then, strings, onValue }: OptionWordProps) {
  const { label } = option;
  if (option.type === 'choice')
    return (
      <Picked
        name={label}
        then={then}
        value={String(value as string | number)}
        options={option.values.map(({ id, name }) => ({ id: String(id), name }))}
        onPick={(id) => onValue(option.values.find((v) => String(v.id) === id)!.id)}
      />
    );
  return (
    <NumberWord
      name={label}
      label={label}
      then={then}
      value={value as number}
      min={option.min}
      max={option.strings ? strings : option.max}
      onValue={onValue}
      said={`${label.toLowerCase()} ${value as number}`}
    />
  );
}

/** Any move: what it asks for in its sentence, what it comes to in words and pictures, and the ways out. */
export function MoveForm({ move, spec, view, ...props }: MoveFormProps) {
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
  const asked = options.filter(([name]) => name !== apart?.[0]);
  const words = asked.filter(([, option]) => isWord(option));
  const seldom = asked.filter(([, option]) => !isWord(option));
  const sentence = (
    <>
      {view}:{' '}
      {words.map(([name, option], i) => {
        const Pick = option.picks && PICKS[option.picks];
        const then = i < words.length - 1 ? ',' : '.';
        return (
          <Fragment key={name}>
            {i > 0 && ' '}
            {Pick ? (
              <Pick
                {...{ model, settings, move, spec, name, option, own, then }}
                onValue={(value) => put({ ...spec, [name]: value })}
                outcome={(value) => comes({ ...spec, [name]: value })}
              />
            ) : (
              <OptionWord
                option={option as WordOption}
                then={then}
                value={spec[name]!}
                strings={model.neck.open.length}
                onValue={(value) => put({ ...spec, [name]: value })}
              />
            )}
          </Fragment>
        );
      })}
      {seldom.length > 0 && (
        <>
          {' '}
          <Word
            name="More"
            weight="seldom"
            body={
              <div className="flex flex-col gap-2">
                <OptionFields
                  options={Object.fromEntries(seldom)}
                  spec={spec}
                  strings={model.neck.open.length}
                  degrees={model.degrees}
                  onSpec={put}
                />
              </div>
            }
          >
            {list(
              seldom.filter(([name]) => spec[name] === true).map(([, { label }]) => label.toLowerCase()),
            ) || 'as usual'}
          </Word>
        </>
      )}
    </>
  );
  const ways = { model, settings, onChange, onLeave: () => put(null), move };
  if (!apart) {
    const outcome = comes(spec);
    return (
      <div className="flex flex-col gap-3">
        <TaskSentence acts={outcome?.ok && <WaysOut {...ways} outcome={outcome.value} />}>
          {sentence}
        </TaskSentence>
        <OutcomeSaid model={model} move={move} outcome={outcome} />
      </div>
    );
  }
  const [name, { values }] = apart as [string, Extract<Option, { type: 'choice' }>];
  const sides = values.map(({ id, name: title }) => ({ title, outcome: comes({ ...spec, [name]: id }) }));
  const refused = sides.find(({ outcome }) => outcome && !outcome.ok)?.outcome;
  return (
    <div className="flex flex-col gap-3">
      <TaskSentence>{sentence}</TaskSentence>
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

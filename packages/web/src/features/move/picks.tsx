import { type KeptInstrument, type Settings } from '@crow-ladder/contract';
import {
  chooseRoot,
  type Key,
  keySaid,
  mod,
  noteName,
  onNeck,
  pitchClass,
  plural,
  pretty,
  type Result,
} from '@crow-ladder/core';
import { type Option } from '@crow-ladder/core/kinds';
import { type AnyMove, halfStepsTo, MODE_LISTS, type MoveSpec, type Outcome } from '@crow-ladder/core/moves';
import { type ReactNode, useState } from 'react';
import { type Model, movingOf } from '../../model/model.ts';
import { Field, Whole } from '../../ui/fields.tsx';
import { NumberWord } from '../../ui/NumberWord.tsx';
import { Picked } from '../../ui/Picked.tsx';
import { type Pickable } from '../../ui/Picks.tsx';
import { Word } from '../../ui/Word.tsx';
import { TargetField } from './TargetField.tsx';
import { targetOf } from './target.ts';

/** What a picker offers its values from. */
export interface PickProps {
  readonly model: Model;
  readonly settings: Settings;
  readonly move: AnyMove;
  readonly spec: MoveSpec;
  readonly name: string;
  readonly option: Option;
  readonly own: readonly KeptInstrument[];
  /** What follows it in the sentence. */
  readonly then: string;
  readonly onValue: (value: MoveSpec[string]) => void;
  /** What the move would come to with another value. */
  readonly outcome: (value: MoveSpec[string]) => Result<Outcome> | null;
}

/** What stands where nothing is chosen yet. */
const NOTHING = 'choose one';

/** The names of the twelve roots by half steps up from the present one. */
const rootsAway = ({ key }: Model, prefer: Settings['spelling']): readonly string[] =>
  Array.from({ length: 12 }, (_, by) => {
    const { root } = by ? chooseRoot(mod(pitchClass(key.root) + by, 12), key.scale, prefer) : key;
    return pretty(noteName(root));
  });

const STEPS = [
  { by: -1, name: 'Half step down' },
  { by: 1, name: 'Half step up' },
  { by: 5, name: 'Fourth up' },
  { by: 7, name: 'Fifth up' },
] as const;
/** Half steps kept within an octave either way. */
const within = (by: number): number => (by > 12 ? by - 12 : by < -12 ? by + 12 : by);

/** Half steps to another key: chosen by name, gone to by steps, or by where the root shall lie. */
function KeyPick({ model, settings, spec, name, then, onValue }: PickProps) {
  const by = spec[name] as number;
  const put = (next: number): void => onValue(within(next));
  const keys = rootsAway(model, settings.spelling).map((root, n) => ({ id: String(n), name: root }));
  // Up or down, whichever is nearer; the arrows of a step keep their way.
  const choose = (n: number): void => put(n > 6 ? n - 12 : n);
  return (
    <>
      <Picked
        name="Key"
        then=","
        said={by ? undefined : NOTHING}
        value={String(mod(by, 12))}
        options={keys}
        onPick={(n) => choose(Number(n))}
      />{' '}
      <NumberWord
        name="Steps"
        label="Half steps, negative down"
        then={then}
        value={by}
        min={-12}
        max={12}
        onValue={put}
        said={by ? `${plural(Math.abs(by), 'half step')} ${by > 0 ? 'up' : 'down'}` : 'by half steps'}
      >
        <div className="flex flex-wrap gap-1.5">
          {STEPS.map((s) => (
            <button key={s.by} type="button" className="button" onClick={() => put(by + s.by)}>
              {s.name}
            </button>
          ))}
        </div>
        <RootTo model={model} onBy={put} />
      </NumberWord>
    </>
  );
}

/** The root sent to a string and a fret. */
function RootTo({ model, onBy }: Pick<PickProps, 'model'> & { onBy: (by: number) => void }) {
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

/** A mode over the same notes, or on the same root. */
function ModePick({ model, spec, name, option, then, onValue }: PickProps) {
  const isHere = (k: Key): boolean =>
    k.root === model.key.root && k.scale.offsets.join() === model.scale.offsets.join();
  const options = MODE_LISTS.flatMap(({ id, name: group, keys }) =>
    keys(model.key).flatMap((k, at): Pickable[] =>
      isHere(k) ? [] : [{ id: `${id}${at}`, name: keySaid(k), group }],
    ),
  );
  return (
    <Picked
      name={option.label}
      then={then}
      said={spec[name] ? undefined : NOTHING}
      value={spec[name] as string}
      options={options}
      onPick={onValue}
    />
  );
}

const StringPick = ({ model, spec, name, option, then, onValue }: PickProps) => (
  <Picked
    name={option.label}
    then={then}
    said={spec[name] === model.state.at.string ? NOTHING : `string ${spec[name] as number}`}
    value={String(spec[name] as number)}
    options={model.neck.rising.map((string) => ({
      id: String(string),
      name: `string ${string}`,
      tag: string === model.state.at.string ? 'where it is' : undefined,
    }))}
    onPick={(id) => onValue(Number(id))}
  />
);

/** Keys by half steps up from the present one, each with what the move would come to there. */
const CapoKeyPick = ({ model, settings, move, spec, name, option, then, onValue, outcome }: PickProps) => {
  const to = spec[name] as number;
  return (
    <Picked
      name={option.label}
      then={then}
      said={to < 0 ? NOTHING : undefined}
      value={String(to)}
      options={rootsAway(model, settings.spelling).map((root, by) => {
        const there = outcome(by);
        return { id: String(by), name: root, tag: there && move.brief ? move.brief(there) : 'no capo' };
      })}
      onPick={(id) => onValue(Number(id))}
    />
  );
};

const InstrumentPick = ({ model, spec, name, option, own, then, onValue }: PickProps) => {
  const value = (spec[name] as string) || null;
  const on = model.state.instrument;
  const target = value === null ? null : targetOf(value, on, own);
  return (
    <Word
      name={option.label}
      then={then}
      body={
        <TargetField
          label={option.label}
          value={value}
          on={on}
          own={own}
          none={NOTHING}
          onValue={(to) => onValue(to ?? '')}
        />
      }
    >
      {target?.instrument.name ?? NOTHING}
    </Word>
  );
};

/** How an option is picked that has a picker. */
export const PICKS: Readonly<Record<NonNullable<Option['picks']>, (props: PickProps) => ReactNode>> = {
  key: KeyPick,
  capoKey: CapoKeyPick,
  mode: ModePick,
  string: StringPick,
  instrument: InstrumentPick,
};

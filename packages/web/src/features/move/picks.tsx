import { type KeptInstrument, type Settings } from '@crow-ladder/contract';
import {
  chooseRoot,
  type Key,
  mod,
  noteName,
  onNeck,
  pitchClass,
  pretty,
  type Result,
  keySaid,
} from '@crow-ladder/core';
import { type Option } from '@crow-ladder/core/kinds';
import { type AnyMove, halfStepsTo, MODE_LISTS, type MoveSpec, type Outcome } from '@crow-ladder/core/moves';
import { type ReactNode, useState } from 'react';
import { type Model, movingOf } from '../../model/model.ts';
import { Choice, Field, Whole } from '../../ui/fields.tsx';
import { TargetField } from './TargetField.tsx';

/** What a picker offers its values from. */
export interface PickProps {
  readonly model: Model;
  readonly settings: Settings;
  readonly move: AnyMove;
  readonly spec: MoveSpec;
  readonly name: string;
  readonly option: Option;
  readonly own: readonly KeptInstrument[];
  readonly onValue: (value: MoveSpec[string]) => void;
  /** What the move would come to with another value. */
  readonly outcome: (value: MoveSpec[string]) => Result<Outcome> | null;
}

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
function KeyPick({ model, settings, spec, name, option, onValue }: PickProps) {
  const by = spec[name] as number;
  const put = (next: number): void => onValue(within(next));
  const keys = rootsAway(model, settings.spelling).map((root, n) => ({ id: String(n), name: root }));
  // Up or down, whichever is nearer; the arrows of a step keep their way.
  const choose = (n: number): void => put(n > 6 ? n - 12 : n);
  return (
    <>
      <div className="grid grid-cols-2 items-end gap-3">
        <Field label="Key">
          <Choice value={String(mod(by, 12))} options={keys} onChange={(n) => choose(Number(n))} />
        </Field>
        <Field label={option.label}>
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
      <RootTo model={model} onBy={put} />
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

/** A button for each of some values. */
function Buttons({
  label,
  values,
  now,
  onValue,
}: {
  label: string;
  values: readonly { readonly id: string | number; readonly name: string; readonly here?: boolean }[];
  now: unknown;
  onValue: (id: string | number) => void;
}) {
  return (
    <div role="group" aria-label={label}>
      <p className="mb-1 text-sm font-semibold">{label}</p>
      <div className="flex flex-wrap gap-1.5">
        {values.map(({ id, name, here }) =>
          here ? (
            <span key={id} className="button border-dashed text-soft" aria-current="true">
              {name}
            </span>
          ) : (
            <button
              key={id}
              type="button"
              className="button"
              aria-pressed={now === id}
              onClick={() => onValue(id)}
            >
              {name}
            </button>
          ),
        )}
      </div>
    </div>
  );
}

/** A mode over the same notes, or on the same root. */
function ModePick({ model, spec, name, onValue }: PickProps) {
  const isHere = (k: Key): boolean =>
    k.root === model.key.root && k.scale.offsets.join() === model.scale.offsets.join();
  return MODE_LISTS.map(({ id, name: label, keys }) => (
    <Buttons
      key={id}
      label={label}
      values={keys(model.key).map((k, at) => ({ id: `${id}${at}`, name: keySaid(k), here: isHere(k) }))}
      now={spec[name]}
      onValue={onValue}
    />
  ));
}

const StringPick = ({ model, spec, name, option, onValue }: PickProps) => (
  <Buttons
    label={option.label}
    values={model.neck.rising.map((string) => ({
      id: string,
      name: `String ${string}`,
      here: string === model.state.at.string,
    }))}
    now={spec[name]}
    onValue={onValue}
  />
);

/** Keys by half steps up from the present one, each with what the move would come to there. */
const CapoKeyPick = ({ model, settings, move, spec, name, option, onValue, outcome }: PickProps) => (
  <Buttons
    label={option.label}
    values={rootsAway(model, settings.spelling).map((root, by) => {
      const there = outcome(by);
      return { id: by, name: there && move.brief ? `${root}: ${move.brief(there)}` : root };
    })}
    now={spec[name]}
    onValue={onValue}
  />
);

const InstrumentPick = ({ model, spec, name, option, own, onValue }: PickProps) => (
  <TargetField
    label={option.label}
    value={(spec[name] as string) || null}
    on={model.state.instrument}
    own={own}
    none="choose one"
    onValue={(to) => onValue(to ?? '')}
  />
);

/** How an option is picked that has a picker. */
export const PICKS: Readonly<Record<NonNullable<Option['picks']>, (props: PickProps) => ReactNode>> = {
  key: KeyPick,
  capoKey: CapoKeyPick,
  mode: ModePick,
  string: StringPick,
  instrument: InstrumentPick,
};

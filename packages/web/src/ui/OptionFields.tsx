import { type Alteration, type Option, type OptionValue } from '@crow-ladder/core/kinds';
import { type LayoutSpec } from '@crow-ladder/core/layouts';
import { useState } from 'react';
import { Choice, Field, Whole } from './fields.tsx';
import { Switch } from './Switch.tsx';

interface OptionFieldsProps {
  /** What can be chosen, by name, and what is chosen. */
  readonly options: Readonly<Record<string, Option>>;
  readonly spec: LayoutSpec;
  /** Strings of the instrument. */
  readonly strings: number;
  /** Printed names of the scale's degrees. */
  readonly degrees: readonly string[];
  readonly onSpec: (spec: LayoutSpec) => void;
}

interface FieldProps<O extends Option> extends Pick<OptionFieldsProps, 'strings' | 'degrees'> {
  readonly option: O;
  readonly value: OptionValue;
  readonly onValue: (value: OptionValue) => void;
}
type Of<T extends Option['type']> = FieldProps<Extract<Option, { type: T }>>;

/** Whole numbers typed one after the other: "3" or "3 3 2 3 3". */
function Wholes({ option, value, onValue }: Of<'wholes'>) {
  const [typed, setTyped] = useState((value as readonly number[]).join(' '));
  const { label, hint, min, max, most } = option;
  const read = (text: string): readonly number[] | null => {
    const numbers = text
      .trim()
      .split(/[\s,]+/)
      .map(Number);
    return numbers.length <= most && numbers.every((n) => Number.isInteger(n) && n >= min && n <= max)
      ? numbers
      : null;
  };
  return (
    <Field
      label={label}
      hint={hint}
      error={read(typed) ? undefined : `Write numbers from ${min} to ${max}, such as 3 or 3 3 2 3 3.`}
    >
      <input
        className="input"
        value={typed}
        onChange={(e) => {
          setTyped(e.target.value);
          const numbers = read(e.target.value);
          if (numbers) onValue(numbers);
        }}
      />
    </Field>
  );
}

const EVERYWHERE = 'wherever it lies';
/** A button for each degree, pressed where it is lowered or raised, and where that is. */
function Altered({ option, value, onValue, degrees, strings }: Of<'altered'>) {
  const altered = value as readonly Alteration[];
  return (
    <fieldset>
      <legend className="text-sm font-semibold">{option.label}</legend>
      <div className="flex flex-wrap gap-1">
        {degrees.map((name, degree) => {
          const here = altered.find((a) => a.degree === degree);
          const by = here?.by ?? 0;
          const next = by === 0 ? -1 : by === -1 ? 1 : 0;
          const rest = altered.filter((a) => a !== here);
          return (
            <button
              key={name}
              type="button"
              className="button"
              aria-pressed={by !== 0}
              onClick={() => onValue(next ? [...rest, { ...here, degree, by: next }] : rest)}
            >
              {name} {by < 0 ? 'lowered' : by > 0 ? 'raised' : ''}
            </button>
          );
        })}
      </div>
      {altered.map((a) => (
        <Field
          key={`${a.degree} ${a.string}`}
          label={`${degrees[a.degree] ?? ''} ${a.by < 0 ? 'lowered' : 'raised'} on`}
        >
          <Choice
            value={a.string ? String(a.string) : EVERYWHERE}
            options={[EVERYWHERE, ...Array.from({ length: strings }, (_, i) => String(strings - i))].map(
              (id) => ({
                id,
                name: id === EVERYWHERE ? id : `string ${id}`,
              }),
            )}
            onChange={(id) => {
              const { degree, by } = a;
              const next = { degree, by, ...(id !== EVERYWHERE && { string: Number(id) }) };
              onValue(altered.map((o) => (o === a ? next : o)));
            }}
          />
        </Field>
      ))}
    </fieldset>
  );
}

function OptionField({ option, value, onValue, strings, degrees }: FieldProps<Option>) {
  switch (option.type) {
    case 'whole':
      return (
        <Field label={option.label} hint={option.hint}>
          <Whole
            value={value as number}
            min={option.min}
            max={option.strings ? strings : option.max}
            onChange={onValue}
          />
        </Field>
      );
    case 'wholes':
      return <Wholes option={option} value={value} onValue={onValue} strings={strings} degrees={degrees} />;
    case 'choice':
      return (
        <Field label={option.label} hint={option.hint}>
          <Choice
            value={String(value as string | number)}
            options={option.values.map(({ id, name }) => ({ id: String(id), name }))}
            onChange={(chosen) => onValue(option.values.find((v) => String(v.id) === chosen)!.id)}
          />
        </Field>
      );
    case 'switch':
      return (
        <Switch on={value as boolean} onChange={onValue}>
          {option.label}
        </Switch>
      );
    case 'word':
      return (
        <Field label={option.label} hint={option.hint}>
          <input className="input" value={value as string} onChange={(e) => onValue(e.target.value)} />
        </Field>
      );
    case 'altered':
      return <Altered option={option} value={value} onValue={onValue} strings={strings} degrees={degrees} />;
  }
}

/** The options of a layout or a climb as fields, made from what it says of them. */
export function OptionFields({ options, spec, strings, degrees, onSpec }: OptionFieldsProps) {
  return Object.entries(options).map(([name, option]) => (
    <OptionField
      key={`${spec.kind}.${name}`}
      option={option}
      value={spec[name]!}
      strings={strings}
      degrees={degrees}
      onValue={(value) => onSpec({ ...spec, [name]: value })}
    />
  ));
}

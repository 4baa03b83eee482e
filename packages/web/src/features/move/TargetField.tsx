import { type KeptInstrument } from '@crow-ladder/contract';
import { type Instrument, pretty, readTuning, TUNINGS, tuningText } from '@crow-ladder/core';
import { useState } from 'react';
import { Field } from '../../ui/fields.tsx';
import { toOwn, toStringsTyped, toTuning } from './target.ts';

const GROUPS = [...new Set(TUNINGS.map((t) => t.group))];
const TYPED = 'typed';

/** A tuning or instrument: one of the player's own, of the table, or typed. */
export function TargetField({
  label,
  value,
  on,
  own,
  none,
  onValue,
}: {
  label: string;
  value: string | null;
  /** The instrument at hand: typed letters are read as near to it as they can be. */
  on: Instrument;
  own: readonly KeptInstrument[];
  /** What no choice is called. */
  none: string;
  onValue: (value: string | null) => void;
}) {
  const isTyped = value?.startsWith('s:') ?? false;
  const [typing, setTyping] = useState(isTyped);
  const [text, setText] = useState(() => (isTyped ? value!.slice(2).replace(/\./g, ' ') : ''));
  const read = readTuning(text, on.tuning);
  const take = (typed: string): void => {
    setText(typed);
    const next = readTuning(typed, on.tuning);
    if (next.ok) onValue(toStringsTyped(next.value.tuning));
  };
  return (
    <div className="flex flex-col gap-3">
      <Field label={label}>
        <select
          className="input"
          value={typing ? TYPED : (value ?? '')}
          onChange={(e) => {
            const chosen = e.target.value;
            setTyping(chosen === TYPED);
            if (chosen !== TYPED) onValue(chosen || null);
          }}
        >
          <option value="">{none}</option>
          <option value={TYPED}>strings that I type</option>
          {own.length > 0 && (
            <optgroup label="your instruments">
              {own.map(({ id, instrument }) => (
                <option key={id} value={toOwn(id)}>
                  {instrument.name}
                </option>
              ))}
            </optgroup>
          )}
          {GROUPS.map((group) => (
            <optgroup key={group} label={group}>
              {TUNINGS.filter((t) => t.group === group).map((t) => (
                <option key={t.id} value={toTuning(t.id)}>
                  {t.name}
                </option>
              ))}
            </optgroup>
          ))}
        </select>
      </Field>
      {typing && (
        <Field
          label="Strings, lowest first"
          error={text && !read.ok ? read.error.message : undefined}
          hint={
            read.ok
              ? `Read as ${pretty(tuningText(read.value.tuning))}.`
              : 'Such as D A D G A D or B1 E2 A2 D3 G3 B3 E4.'
          }
        >
          <input className="input" value={text} onChange={(e) => take(e.target.value)} />
        </Field>
      )}
    </div>
  );
}

import {
  crossings,
  instrumentOf,
  type Instrument,
  LIMITS,
  mostCapo,
  pretty,
  readTuning,
  tuningNamed,
  TUNINGS,
  tuningText,
} from '@crow-ladder/core';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { server } from '../../app/api.ts';
import { type Model } from '../../model/model.ts';
import { type Change, withInstrument } from '../../model/moves.ts';
import { Field, Whole } from '../../ui/fields.tsx';
import { afterPaint } from '../../ui/later.ts';
import { Instruments } from './Instruments.tsx';

interface TuningPartProps {
  readonly model: Model;
  readonly onChange: (change: Change) => void;
}

const GROUPS = [...new Set(TUNINGS.map((t) => t.group))];

/** Tuning and instrument: the player's own, the table's, or typed. */
export function TuningPart({ model, onChange }: TuningPartProps) {
  const { state, accidentals } = model;
  const { instrument } = state;
  const text = (tuning: readonly number[]): string => tuningText(tuning, accidentals);
  const own = server.useInstrumentsQuery().data ?? [];
  const [typed, setTyped] = useState(text(instrument.tuning));
  const read = useMemo(() => readTuning(typed, instrument.tuning), [typed, instrument.tuning]);
  const take = (it: Instrument, id: string | null = null): void => {
    onChange((s) => withInstrument(s, it, id));
    afterPaint(() => setTyped(text(it.tuning)));
  };
  /** The same instrument strung or cut otherwise. */
  const alter = (part: Partial<Instrument>): void => take({ ...instrument, ...part });
  const string = (tuning: readonly number[]): void =>
    alter({
      tuning,
      wound: Math.min(instrument.wound, tuning.length),
      name: tuningNamed(tuning)?.name ?? 'own tuning',
    });
  const others = read.ok && typed !== text(instrument.tuning) ? read.value.also : [];
  const now = instrument.tuning.join();
  const jogs = crossings(instrument.tuning).filter((c) => c.jog !== 0);
  return (
    <div className="flex flex-col gap-3">
      <Instruments model={model} onChange={onChange} />
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (read.ok) string(read.value.tuning);
        }}
      >
        <Field
          label="Strings, lowest first"
          error={read.ok ? undefined : read.error.message}
          hint={
            read.ok && read.value.guessed
              ? `Read as ${pretty(text(read.value.tuning))}. Press Enter to use it.`
              : 'Such as D A D G A D, with or without octaves, or a name such as drop D. Press Enter to use it.'
          }
        >
          <input className="input" value={typed} onChange={(e) => setTyped(e.target.value)} />
        </Field>
        {others.map((tuning) => (
          <button key={tuning.join()} type="button" className="button mt-1.5" onClick={() => string(tuning)}>
            Or {pretty(text(tuning))}
          </button>
        ))}
      </form>
      <div className="flex gap-3">
        <Field label="Frets">
          <Whole
            value={instrument.frets}
            min={LIMITS.frets[0]}
            max={LIMITS.frets[1]}
            onChange={(frets) => alter({ frets, capo: Math.min(instrument.capo, mostCapo(frets)) })}
          />
        </Field>
        <Field label="Capo">
          <Whole
            value={instrument.capo}
            min={0}
            max={mostCapo(instrument.frets)}
            onChange={(capo) => alter({ capo })}
          />
        </Field>
      </div>
      <p className="text-sm text-soft">
        {jogs.length
          ? `Jogs: ${jogs.map((c) => `${c.jog > 0 ? '+' : '−'}${Math.abs(c.jog)} from string ${c.from} to ${c.to}`).join(', ')}.`
          : 'No jogs: all strings are a fourth apart.'}
      </p>
      {own.length > 0 && (
        <section>
          <h3 className="mb-1 text-sm font-semibold">Your instruments</h3>
          <div className="flex flex-wrap gap-1.5">
            {own.map(({ id, instrument: it }) => (
              <button
                key={id}
                type="button"
                className="button"
                aria-pressed={id === state.instrumentId}
                onClick={() => take(it, id)}
              >
                {it.name}
              </button>
            ))}
          </div>
        </section>
      )}
      {GROUPS.map((group) => (
        <section key={group}>
          <h3 className="mb-1 text-sm font-semibold">{group}</h3>
          <div className="flex flex-wrap gap-1.5">
            {TUNINGS.filter((t) => t.group === group).map((t) => (
              <button
                key={t.id}
                type="button"
                className="button"
                aria-pressed={t.tuning.join() === now}
                title={pretty(text(t.tuning))}
                onClick={() => take(instrumentOf(t))}
              >
                {t.name}
              </button>
            ))}
          </div>
        </section>
      ))}
      <Link to="/instruments" className="underline">
        Make and edit your instruments
      </Link>
    </div>
  );
}

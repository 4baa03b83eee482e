import { type ChartState } from '@crow-ladder/contract';
import {
  crossings,
  instrumentOf,
  type Instrument,
  LIMITS,
  mostCapo,
  parseTuning,
  pretty,
  tuningNamed,
  TUNINGS,
  tuningText,
} from '@crow-ladder/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { server } from '../../app/api.ts';
import { type Change, withInstrument } from '../../model/moves.ts';
import { Field, Whole } from '../../ui/fields.tsx';
import { afterPaint } from '../../ui/later.ts';

interface TuningPartProps {
  readonly state: ChartState;
  readonly onChange: (change: Change) => void;
}

const GROUPS = [...new Set(TUNINGS.map((t) => t.group))];

/** Tuning and instrument: the player's own, the table's, or typed. */
export function TuningPart({ state, onChange }: TuningPartProps) {
  const { instrument } = state;
  const own = server.useInstrumentsQuery().data ?? [];
  const [typed, setTyped] = useState(tuningText(instrument.tuning));
  const read = parseTuning(typed, instrument.tuning);
  const take = (it: Instrument, id: string | null = null): void => {
    onChange((s) => withInstrument(s, it, id));
    afterPaint(() => setTyped(tuningText(it.tuning)));
  };
  /** The same instrument strung or cut otherwise. */
  const alter = (part: Partial<Instrument>): void => take({ ...instrument, ...part });
  const jogs = crossings(instrument.tuning).filter((c) => c.jog !== 0);
  return (
    <div className="flex flex-col gap-3">
      <form
        onSubmit={(e) => {
          e.preventDefault();
          if (!read.ok) return;
          const { tuning } = read.value;
          alter({
            tuning,
            wound: Math.min(instrument.wound, tuning.length),
            name: tuningNamed(tuning)?.name ?? 'own tuning',
          });
        }}
      >
        <Field
          label="Strings, lowest first"
          error={read.ok ? undefined : read.error.message}
          hint={
            read.ok && read.value.guessed
              ? `Read as ${pretty(tuningText(read.value.tuning))}. Press Enter to use it.`
              : 'Such as D A D G A D, with or without octaves. Press Enter to use it.'
          }
        >
          <input className="input" value={typed} onChange={(e) => setTyped(e.target.value)} />
        </Field>
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
                aria-pressed={tuningText(t.tuning) === tuningText(instrument.tuning)}
                title={pretty(tuningText(t.tuning))}
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

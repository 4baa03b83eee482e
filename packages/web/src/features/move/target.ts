import { type KeptInstrument } from '@crow-ladder/contract';
import {
  type Instrument,
  instrumentOf,
  parseTuning,
  tuningById,
  tuningNamed,
  TUNINGS,
  tuningText,
} from '@crow-ladder/core';

/** The words of an address for a tuning of the table, one of the player's instruments, and typed strings. */
export const toTuning = (id: string): string => `t:${id}`;
export const toOwn = (id: string): string => `i:${id}`;
export const toStringsTyped = (tuning: readonly number[]): string =>
  `s:${tuningText(tuning).replace(/ /g, '.')}`;

/** An instrument strung otherwise: it stays what it is where it has as many strings. */
const restrung = (on: Instrument, tuning: readonly number[], name: string): Instrument => ({
  ...on,
  tuning,
  name,
  wound: Math.min(on.wound, tuning.length),
});

/** The instrument that a word names, seen from the one at hand; null where it names none. */
export function targetOf(
  word: string | null,
  on: Instrument,
  own: readonly KeptInstrument[],
): { readonly instrument: Instrument; readonly id: string | null } | null {
  const [kind, rest = ''] = [word?.slice(0, 1), word?.slice(2)];
  if (kind === 'i') {
    const kept = own.find((o) => o.id === rest);
    return kept ? { instrument: kept.instrument, id: kept.id } : null;
  }
  if (kind === 't') {
    const named = tuningById(rest);
    if (!named) return null;
    const same = named.tuning.length === on.tuning.length;
    return { instrument: same ? restrung(on, named.tuning, named.name) : instrumentOf(named), id: null };
  }
  if (kind !== 's') return null;
  const read = parseTuning(rest.replace(/\./g, ' '), on.tuning);
  if (!read.ok) return null;
  const { tuning } = read.value;
  const name = tuningNamed(tuning)?.name ?? 'own tuning';
  const alike = TUNINGS.find((t) => t.tuning.length === tuning.length);
  const base = tuning.length === on.tuning.length || !alike ? on : instrumentOf(alike);
  return { instrument: restrung(base, tuning, name), id: null };
}

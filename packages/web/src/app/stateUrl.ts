import { type ChartState, FIRST_STATE, stateSchema, validate } from '@crow-ladder/contract';
import {
  checkInstrument,
  type Instrument,
  type LayoutSpec,
  parseTuning,
  tuningText,
} from '@crow-ladder/core';
import { withRoot } from './moves.ts';

/** A layout in one word of the address: "count.3", "skip.3.1.b2". */
function layoutWord(spec: LayoutSpec): string {
  const parts: (string | number)[] = [spec.kind];
  if (spec.kind === 'count') parts.push(...spec.counts);
  if (spec.kind === 'reach') parts.push(spec.reach);
  if (spec.kind === 'inPosition') parts.push(spec.school, spec.every ? 'every' : 'best');
  if (spec.kind === 'single') parts.push(spec.string);
  if (spec.kind === 'pair') parts.push(spec.lower);
  if (spec.kind === 'relay') parts.push(spec.notes, spec.perString);
  if (spec.kind === 'skip')
    parts.push(spec.perString, spec.from, ...spec.altered.map((a) => `${a.degree}${a.by > 0 ? 'u' : 'd'}`));
  if (spec.kind === 'regions') parts.push(spec.boundary);
  return parts.join('.');
}

function layoutFrom(word: string): unknown {
  const [kind, ...rest] = word.split('.');
  const [a, b] = rest.map(Number);
  switch (kind) {
    case 'count':
      return { kind, counts: rest.map(Number) };
    case 'reach':
      return { kind, reach: a };
    case 'inPosition':
      return { kind, school: rest[0], every: rest[1] === 'every' };
    case 'single':
      return { kind, string: a };
    case 'pair':
      return { kind, lower: a };
    case 'relay':
      return { kind, notes: a, perString: b };
    case 'skip':
      return {
        kind,
        perString: a,
        from: b,
        altered: rest.slice(2).map((w) => ({ degree: parseInt(w, 10), by: w.endsWith('u') ? 1 : -1 })),
      };
    case 'regions':
      return { kind, boundary: a };
    default:
      return { kind };
  }
}

/** A whole chart state as the query of an address. */
export function stateToQuery(state: ChartState): URLSearchParams {
  const { instrument: it } = state;
  const query = new URLSearchParams({
    root: state.root,
    scale: state.scale,
    at: `${state.string}.${state.fret}`,
    layout: layoutWord(state.layout),
    strings: tuningText(it.tuning).replace(/ /g, '.'),
    neck: [it.frets, it.scaleLength, it.capo, it.wound, it.handed].join('.'),
    called: it.name,
  });
  if (state.instrumentId) query.set('instrument', state.instrumentId);
  return query;
}

export type FromQuery = { readonly state: ChartState; readonly problem: string | null } | null;

/** The root found near the spot of an address where the spot itself does not sound it, as after a change by hand. */
function rooted(state: ChartState): ChartState {
  const inBounds =
    state.string <= state.instrument.tuning.length &&
    state.fret <= state.instrument.frets - state.instrument.capo;
  return inBounds && checkInstrument(state.instrument).ok ? withRoot(state, state.root) : state;
}

/**
 * Reads a state from an address; null where it carries none. What is left out is taken from `fallback`; what cannot be
 * read is named in `problem`, and the fallback is shown instead.
 */
export function stateFromQuery(query: URLSearchParams, fallback: ChartState = FIRST_STATE): FromQuery {
  if (!['root', 'scale', 'at', 'layout', 'strings'].some((k) => query.has(k))) return null;
  const [string, fret] = (query.get('at') ?? `${fallback.string}.${fallback.fret}`).split('.').map(Number);
  const typed = query.get('strings');
  const tuning = typed ? parseTuning(typed.replace(/\./g, ' ')) : null;
  if (tuning && !tuning.ok) return { state: fallback, problem: tuning.error.message };
  const neck = query.get('neck')?.split('.') ?? [];
  // A scale length may itself hold a point, so the last three parts are read from the end.
  const [capo, wound, handed] = neck.slice(-3);
  const instrument: Instrument = {
    ...fallback.instrument,
    ...(tuning
      ? {
          tuning: tuning.value.tuning,
          wound: Math.min(fallback.instrument.wound, tuning.value.tuning.length),
        }
      : {}),
    ...(neck.length >= 5
      ? {
          frets: Number(neck[0]),
          scaleLength: Number(neck.slice(1, -3).join('.')),
          capo: Number(capo),
          wound: Number(wound),
          handed: handed as Instrument['handed'],
        }
      : {}),
    ...(query.has('called') ? { name: query.get('called')! } : {}),
  };
  const carried = {
    root: query.get('root') ?? fallback.root,
    scale: query.get('scale') ?? fallback.scale,
    string,
    fret,
    layout: query.has('layout') ? layoutFrom(query.get('layout')!) : fallback.layout,
    instrument,
    instrumentId: query.get('instrument'),
  };
  const checked = validate<ChartState>(stateSchema, rooted(carried as ChartState));
  return checked.ok
    ? { state: checked.value, problem: null }
    : { state: fallback, problem: checked.error.message };
}

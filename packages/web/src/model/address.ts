import {
  type ChartDraft,
  type ChartState,
  type Checked,
  FIRST_STATE,
  neckFrom,
  placeFrom,
  refFrom,
  stringsFrom,
} from '@crow-ladder/contract';
import {
  chordPart,
  instrumentPart,
  layoutPart,
  overlayPart,
  phrasePart,
  readDocument,
  readDraft,
  runPart,
} from '@crow-ladder/contract/schemas';
import { checkInstrument, type Instrument } from '@crow-ladder/core';
import { withRoot } from './moves.ts';

/** The root found near the place of an address where the place itself does not sound it, as after a change by hand. */
function rooted(state: ChartState): ChartState {
  const { tuning, frets, capo } = state.instrument;
  const inBounds = state.at.string <= tuning.length && state.at.fret <= frets - capo;
  return inBounds && checkInstrument(state.instrument).ok ? withRoot(state, state.key.root) : state;
}

function instrumentFrom(query: URLSearchParams, fallback: Instrument): Checked<Instrument> {
  const typed = query.get('strings');
  const read = typed ? stringsFrom(typed) : null;
  if (read && !read.ok) return { ok: false, error: read.error };
  const tuning = read?.value.tuning ?? fallback.tuning;
  return {
    ok: true,
    value: {
      ...fallback,
      tuning,
      wound: Math.min(fallback.wound, tuning.length),
      ...neckFrom(query.get('neck') ?? ''),
      ...(query.has('called') ? { name: query.get('called')! } : {}),
    },
  };
}

/**
 * Reads a state from an address. What is left out is taken from `fallback`; what cannot be read is refused in the player's
 * terms. A state without a position in front brings none: the one through the root comes forward.
 */
export function stateFromQuery(
  query: URLSearchParams,
  fallback: ChartState = FIRST_STATE,
): Checked<ChartState> {
  const instrument = instrumentFrom(query, fallback.instrument);
  if (!instrument.ok) return instrument;
  const front = query.get('front');
  const carried = {
    ...fallback,
    key: { root: query.get('root') ?? fallback.key.root, scale: query.get('scale') ?? fallback.key.scale },
    at: query.has('at') ? placeFrom(query.get('at')!) : fallback.at,
    layout: query.has('layout') ? layoutPart.word.read(query.get('layout')!) : fallback.layout,
    front: front === null ? null : refFrom(front),
    instrument: instrument.value,
    runs: query.has('run') ? query.getAll('run').map(runPart.word.read) : fallback.runs,
    chords: query.has('chords') ? query.getAll('chords').map(chordPart.word.read) : fallback.chords,
    phrases: query.has('phrase') ? query.getAll('phrase').map(phrasePart.word.read) : fallback.phrases,
    overlays: query.has('over') ? query.getAll('over').map(overlayPart.word.read) : fallback.overlays,
    others: query.has('other') ? query.getAll('other').map(instrumentPart.word.read) : fallback.others,
    instrumentId: query.has('strings')
      ? query.get('instrument')
      : (query.get('instrument') ?? fallback.instrumentId),
  };
  return readDocument(rooted(carried as ChartState));
}

const FIRST: Omit<ChartDraft, 'name'> = { tags: [], notes: '', state: FIRST_STATE };
/** Any name stands in for that of a chart which has none yet, to read the rest of it. */
const UNNAMED = 'New chart';

/** As `stateFromQuery`, with tags and notes. */
export function draftFromQuery(
  query: URLSearchParams,
  fallback: Omit<ChartDraft, 'name'> = FIRST,
): Checked<ChartDraft> {
  const state = stateFromQuery(query, fallback.state);
  if (!state.ok) return state;
  const tags = query.has('tag') ? query.getAll('tag') : fallback.tags;
  const notes = query.get('notes') ?? fallback.notes;
  const read = readDraft({ name: UNNAMED, tags, notes, state: state.value });
  return read.ok ? { ok: true, value: { ...read.value, name: '' } } : read;
}

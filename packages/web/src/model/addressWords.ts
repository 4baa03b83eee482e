import {
  type ChartDraft,
  type ChartState,
  chartWords,
  chordPartWord,
  otherWord,
  overlayWord,
  phraseWord,
  runWord,
} from '@crow-ladder/contract';

/** A whole chart state as the query of an address. */
export function stateToQuery(state: ChartState): URLSearchParams {
  const query = new URLSearchParams(chartWords(state));
  for (const run of state.runs) query.append('run', runWord(run));
  for (const part of state.chords) query.append('chords', chordPartWord(part));
  for (const part of state.phrases) query.append('phrase', phraseWord(part));
  for (const overlay of state.overlays) query.append('over', overlayWord(overlay));
  for (const other of state.others) query.append('other', otherWord(other));
  return query;
}

/** All that a chart holds, but for its name, as the query of an address. */
export function draftToQuery({ state, tags, notes }: Omit<ChartDraft, 'name'>): URLSearchParams {
  const query = stateToQuery(state);
  for (const tag of tags) query.append('tag', tag);
  if (notes) query.set('notes', notes);
  return query;
}

import {
  type ChartDraft,
  type ChartState,
  layoutWord,
  neckWord,
  otherWord,
  chordPartWord,
  overlayWord,
  phraseWord,
  placeWord,
  refWord,
  runWord,
  stringsWord,
} from '@crow-ladder/contract';

/** A whole chart state as the query of an address. */
export function stateToQuery(state: ChartState): URLSearchParams {
  const { instrument: it, key, at, front } = state;
  const query = new URLSearchParams({
    root: key.root,
    scale: key.scale,
    at: placeWord(at),
    layout: layoutWord(state.layout),
    strings: stringsWord(it),
    neck: neckWord(it),
    called: it.name,
  });
  if (front) query.set('front', refWord(front));
  if (state.instrumentId) query.set('instrument', state.instrumentId);
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

import {
  type ChartState,
  layoutWord,
  neckWord,
  otherWord,
  placeWord,
  refWord,
  runWord,
  stringsWord,
} from '@crow-ladder/contract';

/** Whether an address carries anything of a chart. */
export const carriesState = (query: URLSearchParams): boolean =>
  ['root', 'scale', 'at', 'layout', 'strings', 'front'].some((k) => query.has(k));

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
  for (const other of state.others) query.append('other', otherWord(other));
  return query;
}

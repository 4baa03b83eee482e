import { refWord } from './refWord.ts';
import { type ChartState } from './state.ts';
import { layoutWord, neckWord, placeWord, stringsWord } from './words.ts';

/** The words of an address that show a chart's key, layout, instrument and position in front; what is kept beside them has words of its own. */
export const chartWords = ({
  instrument: it,
  key,
  at,
  front,
  layout,
  instrumentId,
}: ChartState): Readonly<Record<string, string>> => ({
  root: key.root,
  scale: key.scale,
  at: placeWord(at),
  layout: layoutWord(layout),
  strings: stringsWord(it),
  neck: neckWord(it),
  called: it.name,
  ...(front && { front: refWord(front) }),
  ...(instrumentId && { instrument: instrumentId }),
});

import { type OtherInstrument } from './state.ts';
import { refFrom, refWord } from './refWord.ts';
import { instrumentFrom, instrumentWord, layoutFrom, layoutWord, placeFrom, placeWord } from './words.ts';

/** Another instrument of a chart, with its place, layout and position. */
export const otherWord = ({ at, layout, front, instrumentId, instrument }: OtherInstrument): string =>
  [
    placeWord(at),
    layoutWord(layout),
    front ? refWord(front) : '',
    instrumentId ?? '',
    instrumentWord(instrument),
  ].join(';');
export function otherFrom(word: string): unknown {
  const [at = '', layout = '', front = '', instrumentId = '', ...instrument] = word.split(';');
  return {
    at: placeFrom(at),
    layout: layoutFrom(layout),
    front: front ? refFrom(front) : null,
    instrumentId: instrumentId || null,
    instrument: instrumentFrom(instrument.join(';')),
  };
}

import { chartWords, type PlayedOn, ROUND_LIMITS } from '@crow-ladder/contract';
import { refOf } from '@crow-ladder/core';
import { type Model } from '../../model/model.ts';
import { ANYTHING, params as words, type PracticeParams } from './params.ts';

/** What a round is played on, with the words of the address that leads back to it as it is; null where no position is in front. */
export function playedOn(
  { state, front, positions }: Model,
  params: PracticeParams,
  tempo: number,
  chart: { readonly id: string; readonly name: string },
): PlayedOn | null {
  if (!front || !positions.ok) return null;
  const as = { ...state, front: refOf(positions.value, front.position) };
  const query = new URLSearchParams(chartWords(as));
  for (const [name, word] of Object.entries(words.write({ ...params, tempo, setFor: ANYTHING })))
    if (word !== null) query.set(name, word);
  const back = query.toString();
  return {
    chart: chart.id,
    chartName: chart.name,
    root: state.key.root,
    scale: state.key.scale,
    start: front.position.start,
    back: back.length <= ROUND_LIMITS.back ? back : '',
  };
}

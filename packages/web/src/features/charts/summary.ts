import { type ChartState, DEFAULT_SETTINGS, type Settings } from '@crow-ladder/contract';
import { layoutName, note, noteName, pretty, spellScale } from '@crow-ladder/core';
import { accidentalsOf } from '../../model/model.ts';
import { scalesOf } from '../../model/scales.ts';
import { scaleSaid, spotSaid, tuningSaid } from '../../model/wording.ts';

/** What a chart is about, as in its sentence. */
export function summaryOf(state: ChartState, { ownScales, spelling }: Settings = DEFAULT_SETTINGS): string {
  const [scale] = scalesOf([state.key.scale], ownScales);
  const notes = scale
    ? spellScale({ root: note(state.key.root), scale }).map((n) => pretty(noteName(n)))
    : [];
  const tuning = tuningSaid(state.instrument.tuning, accidentalsOf(notes, spelling));
  return `${pretty(state.key.root)} ${scale ? scaleSaid(scale) : ''}, root on ${spotSaid(state.at)}, ${layoutName(state.layout)}, ${tuning}`;
}

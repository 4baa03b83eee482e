import { type ChartDraft, type Settings } from '@crow-ladder/contract';
import { keySaid, list, spotSaid, tuningSaid } from '@crow-ladder/core';
import { layoutName } from '@crow-ladder/core/layouts';
import { type Model, modelOf } from './model.ts';

/** What a chart is by its sentence and by what is in front, each subject in words. */
export function subjectsOf({ state, key, front, names, accidentals }: Model) {
  const { tuning, capo } = state.instrument;
  const position = front?.position;
  return {
    key: keySaid(key),
    root: `root on ${spotSaid(state.at)}`,
    layout: layoutName(state.layout),
    tuning: `tuned ${tuningSaid(tuning, accidentals)}${capo ? `, capo at ${capo}` : ''}`,
    front: position
      ? `${names()[position.index]}, frets ${position.lowFret} to ${position.highFret}`
      : 'no position',
  };
}

/**
 * What a change made of a chart, in a few words: "E♭ Dorian", "three notes per string", "notes and tags". What follows from another
 * change, as the root does from the key, is left out.
 */
export function changeSaid(before: ChartDraft, after: ChartDraft, settings: Settings): string {
  const [was, is] = [before, after].map((draft) => subjectsOf(modelOf(draft.state, settings)));
  const differs = (part: keyof ChartDraft['state']): boolean =>
    JSON.stringify(before.state[part]) !== JSON.stringify(after.state[part]);
  const led = (['key', 'tuning', 'layout'] as const).filter((part) => was![part] !== is![part]);
  const own = [
    before.name !== after.name && `the name “${after.name}”`,
    before.notes !== after.notes && 'notes',
    JSON.stringify(before.tags) !== JSON.stringify(after.tags) && 'tags',
    differs('runs') && 'kept climbs and plans',
    differs('chords') && 'its progression',
    differs('overlays') && 'what is laid over it',
    differs('others') && 'its instruments',
    ...led.map((part) => is![part]),
  ].filter((said) => said !== false);
  if (own.length) return list(own);
  if (was!.root !== is!.root) return is!.root;
  return differs('instrument') ? `the instrument ${after.state.instrument.name}` : is!.front;
}

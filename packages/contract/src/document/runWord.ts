import { type KeptRun, type UnreadRun } from './run.ts';
import { planFrom, planWord } from './plan.ts';
import { climbFrom, climbWord } from './climbWord.ts';
import { placeFrom, placeWord } from './words.ts';

/** A kept climb in one word of an address, its name last. */
export function runWord(run: KeptRun | UnreadRun): string {
  if (run.type === 'unread') return `unread;${JSON.stringify(run.was)}`;
  const { type, at, root, name } = run;
  const rest =
    run.type === 'plan'
      ? [planWord(run.plan), run.pick]
      : [
          climbWord(run.climb),
          run.direction,
          run.topTwice ? 'twice' : 'once',
          run.touch,
          `${run.start}.${run.low}`,
        ];
  return [type, placeWord(at), root, ...rest, name].join(';');
}
/** What such a word says. */
export function runFrom(word: string): unknown {
  const [type = '', at = '', root = '', ...rest] = word.split(';');
  if (type === 'unread')
    try {
      return { type, was: JSON.parse(word.slice('unread;'.length)) as unknown };
    } catch {
      return null;
    }
  const named = { type, at: placeFrom(at), root };
  if (type === 'plan') {
    const [plan = '', pick, ...name] = rest;
    return { ...named, plan: planFrom(plan), pick: Number(pick), name: name.join(';') };
  }
  const [climb = '', direction, twice, touch, position = '', ...name] = rest;
  const [start, low] = position.split('.').map(Number);
  return {
    ...named,
    climb: climbFrom(climb),
    direction,
    topTwice: twice === 'twice',
    touch,
    start,
    low,
    name: name.join(';'),
  };
}

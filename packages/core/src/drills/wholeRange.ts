import { ordinal } from '../words.ts';
import { refuse } from '../result.ts';
import { between, defineDrill, played } from './drill.ts';

interface Options {
  /** Which of the roots it sets out from, the lowest being 1. */
  readonly from: number;
}
/** More roots than any position has. */
const MOST_ROOTS = 12;

/** From a root up to the last note, down to the first one, and back up to that root. */
export const wholeRange = defineDrill<Options>({
  kind: 'whole-range',
  name: 'whole range',
  goodFor: 'hearing the root although the position starts elsewhere',
  options: {
    from: { type: 'whole', min: 1, max: MOST_ROOTS, label: 'From which root', hint: 'The lowest is 1.' },
  },
  usual: () => ({ from: 1 }),
  play: (drilling, { from }) => {
    const { notes } = drilling;
    const roots = notes.flatMap((n, i) => (n.degree === 0 ? [i] : []));
    const root = roots[from - 1];
    if (root === undefined)
      return refuse(
        'drill.root',
        roots.length
          ? `There is no ${ordinal(from)} root among these notes: choose one up to ${roots.length}.`
          : 'There is no root among these notes: choose another position.',
      );
    const last = notes.length - 1;
    const up = between(drilling, root, last);
    const down = between(drilling, last, 0).slice(1);
    const back = between(drilling, 0, root).slice(1);
    return played([...up, ...down, ...back]);
  },
});

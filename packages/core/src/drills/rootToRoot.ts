import { defineDrill, NO_OCTAVE, octaveIn, outAndBack, played, turnOption } from './drill.ts';

interface Options {
  readonly topTwice: boolean;
}

/** From the root up to the next root and back; without one, to the nearest end of the notes and back. */
export const rootToRoot = defineDrill<Options>({
  kind: 'root-to-root',
  name: 'root to root',
  goodFor: 'the sound of the scale',
  options: { topTwice: turnOption },
  usual: () => ({ topTwice: false }),
  play: (drilling, { topTwice }) => {
    const { notes } = drilling;
    const found = octaveIn(notes);
    if (!found.ok) return found;
    const { root, octave } = found.value;
    const last = notes.length - 1;
    // An end that is the root itself is no way to go.
    const end = root > 0 && (root === last || root < last - root) ? 0 : last;
    const line = outAndBack(drilling, root, octave ?? end, topTwice);
    return played(line, 1, octave === null ? NO_OCTAVE : null);
  },
});

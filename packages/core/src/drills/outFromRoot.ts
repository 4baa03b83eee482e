import { between, defineDrill, NO_OCTAVE, octaveIn, played } from './drill.ts';

/** From the root up one note and back, up two and back, and so on to the octave; the root is not struck twice in a row. */
export const outFromRoot = defineDrill<object>({
  kind: 'out-from-root',
  name: 'out from the root',
  goodFor: 'knowing each distance from the root',
  options: {},
  usual: () => ({}),
  play: ({ notes }) => {
    const found = octaveIn(notes);
    if (!found.ok) return found;
    const { root, octave } = found.value;
    const out = [notes[root]!];
    for (let to = root + 1; to <= (octave ?? notes.length - 1); to++)
      out.push(...between(notes, root + 1, to), ...between(notes, to - 1, root));
    return played(out, 1, octave === null ? NO_OCTAVE : null);
  },
});

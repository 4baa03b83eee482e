import { between, defineDrill, played, upToOctave } from './drill.ts';

/** From the root up one note and back, up two and back, and so on to the octave; the root is not struck twice in a row. */
export const outFromRoot = defineDrill<object>({
  kind: 'out-from-root',
  name: 'out from the root',
  goodFor: 'knowing each distance from the root',
  options: {},
  usual: () => ({}),
  play: (drilling) => {
    const { notes } = drilling;
    const way = upToOctave(notes);
    if (!way.ok) return way;
    const { root, end, remark } = way.value;
    const out = [notes[root]!];
    for (let to = root + 1; to <= end; to++)
      out.push(...between(drilling, root + 1, to), ...between(drilling, to - 1, root));
    return played(out, 1, remark);
  },
});

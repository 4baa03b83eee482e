import { defineDrill, played, upToOctave } from './drill.ts';

/** The root before every other note, up to the octave. */
export const rootBetween = defineDrill<object>({
  kind: 'root-between',
  name: 'root between',
  goodFor: 'intervals by ear and by place',
  options: {},
  usual: () => ({}),
  play: ({ notes }) => {
    const way = upToOctave(notes);
    if (!way.ok) return way;
    const { root, end, remark } = way.value;
    const others = notes.slice(root + 1, end + 1);
    return played(
      others.flatMap((note) => [notes[root]!, note]),
      2,
      remark,
    );
  },
});

import { defineDrill, NO_OCTAVE, octaveIn, played } from './drill.ts';

/** The root before every other note, up to the octave. */
export const rootBetween = defineDrill<object>({
  kind: 'root-between',
  name: 'root between',
  goodFor: 'intervals by ear and by place',
  options: {},
  usual: () => ({}),
  play: ({ notes }) => {
    const found = octaveIn(notes);
    if (!found.ok) return found;
    const { root, octave } = found.value;
    const others = notes.slice(root + 1, (octave ?? notes.length - 1) + 1);
    return played(
      others.flatMap((note) => [notes[root]!, note]),
      2,
      octave === null ? NO_OCTAVE : null,
    );
  },
});

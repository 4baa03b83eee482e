import { numberWord } from '../words.ts';
import { refuse } from '../result.ts';
import { defineDrill, type Drilling, type DrillResult, played, turnOption } from './drill.ts';

/**
 * A figure begun on every note in turn, and mirrored coming down. `figure` holds the places of its notes from the first, rising.
 * Where the note on which it turns is struck once, the way down leaves its first figure out, so that every figure stays whole.
 */
function figures({ notes, back }: Drilling, figure: readonly number[], turnTwice: boolean): DrillResult {
  const width = figure.at(-1)!;
  const many = notes.length - width;
  if (many < 1)
    return refuse(
      'drill.notes',
      `There are too few notes for this: it takes ${width + 1}, and there are ${notes.length}.`,
    );
  const up = Array.from({ length: many }, (_, i) => figure.map((at) => notes[i + at]!));
  const last = notes.length - 1;
  const down = Array.from({ length: many }, (_, i) => figure.map((at) => back[last - i - at]!));
  return played([...up, ...(turnTwice ? down : down.slice(1))].flat(), figure.length);
}

interface GroupOptions {
  readonly length: number;
  readonly topTwice: boolean;
}

export const groups = defineDrill<GroupOptions>({
  kind: 'groups',
  name: 'groups',
  goodFor: 'flow',
  options: {
    length: {
      type: 'choice',
      label: 'Notes in a group',
      values: [3, 4, 5, 6].map((id) => ({ id, name: numberWord(id) })),
    },
    topTwice: turnOption,
  },
  joined: { by: ' of', option: 'length' },
  usual: () => ({ length: 3, topTwice: true }),
  play: (drilling, { length, topTwice }) =>
    figures(
      drilling,
      Array.from({ length }, (_, i) => i),
      topTwice,
    ),
});

interface SkipOptions {
  readonly skip: number;
  readonly topTwice: boolean;
}

export const skips = defineDrill<SkipOptions>({
  kind: 'skips',
  name: 'broken intervals',
  goodFor: 'leaving the ladder of steps',
  options: {
    skip: {
      type: 'choice',
      label: 'Each note and the one so many steps on',
      values: ['thirds', 'fourths', 'fifths', 'sixths', 'sevenths', 'octaves'].map((name, i) => ({
        id: i + 2,
        name,
      })),
    },
    topTwice: turnOption,
  },
  joined: { by: ' in', option: 'skip' },
  usual: () => ({ skip: 2, topTwice: true }),
  play: (drilling, { skip, topTwice }) => figures(drilling, [0, skip], topTwice),
});

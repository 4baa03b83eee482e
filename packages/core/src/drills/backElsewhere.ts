import { usualOf } from '../kinds/spec.ts';
import { layOut, LAYOUTS } from '../layouts/registry.ts';
import { type Position } from '../position.ts';
import { refuse } from '../result.ts';
import { type Route, type RouteNote } from '../run/run.ts';
import { CATALOGUE } from '../scaleCatalogue.ts';
import { defineDrill, type Drilling, type DrillResult, played } from './drill.ts';

/**
 * Up through some notes, on to the top of another position where it goes higher, and down in that; where it does not reach so high, down
 * as one came until it does. No note is struck twice in a row.
 */
function backIn({ notes: up, back }: Pick<Drilling, 'notes' | 'back'>, other: Position): DrillResult {
  const top = up.at(-1)!;
  const high = Math.max(...other.spots.map((s) => s.midi));
  const there: readonly RouteNote[] = [...up, ...other.spots.filter((s) => s.midi > top.midi)];
  const asOneCame = [...back].reverse().filter((s) => s.midi > high && s.midi < top.midi);
  const last = asOneCame.at(-1) ?? there.at(-1)!;
  const down = [...other.spots].reverse().filter((s, i) => i > 0 || s.midi !== last.midi);
  return played([...there, ...asOneCame, ...down]);
}

interface NeighbourOptions {
  readonly side: string;
}

export const thereAndBack = defineDrill<NeighbourOptions>({
  kind: 'there-and-back',
  name: 'there in one, back in another',
  goodFor: 'connecting',
  options: {
    side: {
      type: 'choice',
      label: 'Back in the position',
      values: [
        { id: 'up', name: 'next up the neck' },
        { id: 'down', name: 'below' },
      ],
    },
  },
  joined: { by: ':', option: 'side' },
  usual: ({ positions, front }) => ({ side: positions[front.index + 1] ? 'up' : 'down' }),
  play: (drilling, { side }) => {
    const { positions, front } = drilling;
    const other = positions[front.index + (side === 'up' ? 1 : -1)];
    return other
      ? backIn(drilling, other)
      : refuse(
          'drill.other',
          `There is no position ${side === 'up' ? 'further up the neck' : 'below this one'}.`,
        );
  },
});

/** The position of another scale where the hand is already; of a layout that follows the size of a scale, for that one's. */
function inPlace({ neck, key, layout, front }: Drilling, scale: string): Position | null {
  const other = CATALOGUE.find((s) => s.id === scale)!;
  const rule = LAYOUTS.for(layout);
  const sized = rule.bySize && other.degrees.length !== key.scale.degrees.length;
  const spec = sized
    ? usualOf(rule, { scale: other, string: front.spots[0]!.string, strings: neck.open.length })
    : layout;
  const laid = layOut(neck, { root: key.root, scale: other }, spec);
  if (!laid.ok) return null;
  const far = (p: Position): number => Math.abs(p.lowFret - front.lowFret);
  const over = (p: Position): number => Math.max(0, p.highFret - front.highFret);
  return [...laid.value].sort((a, b) => far(a) - far(b) || over(a) - over(b))[0] ?? null;
}

/** Up through some notes, and down through those of another position that lie no higher. What is struck last going up is not struck again. */
function downIn(up: Route, other: Position): DrillResult {
  const top = up.at(-1)!;
  const down = [...other.spots].reverse().filter((s) => s.midi <= top.midi);
  return played([...up, ...(down[0]?.midi === top.midi ? down.slice(1) : down)]);
}

interface ScaleOptions {
  readonly scale: string;
}

export const otherScale = defineDrill<ScaleOptions>({
  kind: 'other-scale',
  name: 'up in this scale, down in another',
  goodFor: 'hearing what sets two scales apart',
  options: {
    scale: {
      type: 'choice',
      label: 'Down in',
      values: CATALOGUE.map(({ id, name }) => ({ id, name })),
    },
  },
  joined: { by: ':', option: 'scale' },
  usual: ({ key }) => ({ scale: key.scale.id === 'natural-minor' ? 'dorian' : 'natural-minor' }),
  play: (drilling, { scale }) => {
    const other = inPlace(drilling, scale);
    return other
      ? downIn(drilling.notes, other)
      : refuse('drill.other', 'The other scale has no position of this layout here: choose another scale.');
  },
});

import { runInNewContext } from 'node:vm';
import * as core from './core.ts';
import { count, HAND, key, neckWith, positions, six } from './helpers.ts';

const neck = neckWith('E2 A2 D3 G3 B3 E4', 22);
const A = key('A', 'minor-pentatonic');
const boxes = positions(A, count(2), neck);
const box = boxes.find((p) => p.lowFret === 5)!;

const root = { string: 6, fret: 5 };
const layout = count(2);
const steps = core.fingers(neck, box.spots, HAND).steps;
const notes = core.notesBetween(
  { neck, key: A },
  { midi: 45, place: root },
  { midi: 57, place: null },
  false,
);

/** The box at fret 5, as a card names it. */
const base = {
  root: 'A',
  scale: 'minor-pentatonic',
  layout,
  instrument: six,
  ref: core.refOf(boxes, box),
};

/**
 * What an example may name beside the functions: a six-string, A minor pentatonic with its boxes, the one at fret 5, a hand, the box
 * fingered and in time, and what climbs, drills, moves, plans and phrases set out from.
 */
const GIVEN = {
  neck,
  A,
  boxes,
  box,
  hand: HAND,
  steps,
  run: core.inTime(core.articulate(steps)),
  climbing: { neck, key: A, hand: HAND, positions: boxes, front: box, root },
  drilling: { neck, key: A, notes: box.spots, back: box.spots, layout, positions: boxes, front: box },
  card: { kind: 'place', ...base, of: '' },
  base,
  question: core.CARD_KINDS.of('place')!.ask({
    ...(core.groundOf({ ...base, of: '' }, HAND) as { value: core.Ground }).value,
    of: '',
  })!,
  moving: { instrument: six, neck, key: A, root, layout, front: box },
  chord: { above: 0, suffix: '7', degrees: ['1', '3', '5', 'b7'], bass: null },
  task: { neck, hand: HAND, notes, limits: {}, speed: 4 },
  ground: { neck, key: A, hand: HAND, plain: 3, tempo: 90 },
  tune: core.tuneOf(
    steps.slice(6, 10).map(({ spot: { string, fret } }) => ({ at: { string, fret }, length: 480 })),
    neck.open,
  ),
};

/** What an expression of an example comes to, as plain values. */
export function valueOf(expression: string): unknown {
  const value: unknown = runInNewContext(expression, { ...core, ...GIVEN });
  return value === undefined ? undefined : (JSON.parse(JSON.stringify(value)) as unknown);
}

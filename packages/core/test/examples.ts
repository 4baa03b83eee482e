import { runInNewContext } from 'node:vm';
import * as core from './core.ts';
import { count, HAND, key, neckWith, positions } from './helpers.ts';

const neck = neckWith('E2 A2 D3 G3 B3 E4', 22);
const A = key('A', 'minor-pentatonic');
const boxes = positions(A, count(2), neck);
const box = boxes.find((p) => p.lowFret === 5)!;

/** What an example may name beside the functions: a six-string, A minor pentatonic with its boxes, the one at fret 5, a hand. */
const GIVEN = { neck, A, boxes, box, hand: HAND, steps: core.fingers(neck, box.spots, HAND).steps };

/** What an expression of an example comes to, as plain values. */
export function valueOf(expression: string): unknown {
  const value: unknown = runInNewContext(expression, { ...core, ...GIVEN });
  return value === undefined ? undefined : (JSON.parse(JSON.stringify(value)) as unknown);
}

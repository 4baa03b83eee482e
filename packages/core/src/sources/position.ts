import { type Neck } from '../neck.ts';
import { type PlacedSpot } from '../placement.ts';
import { type Position } from '../position.ts';
import { type HandOptions } from '../run/grips.ts';
import { type Fingered, type Route } from '../run/run.ts';
import { type Source, sourceOf } from './source.ts';

/**
 * Notes of a position, asking for the place of the hand that it is named by: what lies outside one finger a fret is stretched to,
 * and the hand stays. Where it would have to stretch both ways, which no place of the hand does, nothing is asked.
 *
 * @example inPlace(box, box.spots).length // 12
 */
export function inPlace({ indexFret }: Position, spots: readonly PlacedSpot[]): Route {
  if (indexFret === undefined) return spots;
  const stretched = spots.filter((s) => s.stretch);
  const back = stretched.some((s) => s.fret < indexFret);
  if (back && stretched.some((s) => s.fret > indexFret)) return spots;
  const hand = Math.max(1, indexFret);
  return spots.map((s) => (s.fret > 0 ? { ...s, hand } : s));
}

/**
 * A position, from its lowest note to its highest.
 *
 * @example positionSource(neck, box, hand).up.shifts // 0
 */
export const positionSource = (neck: Neck, position: Position, hand: HandOptions): Source =>
  sourceOf(neck, inPlace(position, position.spots), hand);

/**
 * The fingers of a shape string by string: those of the run through it, and those that take the twins which the run passes over, from
 * the place of the hand that takes their pitch.
 *
 * @example shapeSteps(neck, box, steps).length // 12
 */
export function shapeSteps(
  neck: Neck,
  { twins = [] }: Position,
  steps: readonly Fingered[],
): readonly Fingered[] {
  if (!twins.length) return steps;
  const also = twins.flatMap((spot): Fingered[] => {
    const hand = steps.find((s) => s.spot.midi === spot.midi)?.hand;
    return hand === undefined ? [] : [{ spot, finger: spot.fret && spot.fret - hand + 1, hand }];
  });
  const at = ({ spot }: Fingered): number => neck.rising.indexOf(spot.string);
  return [...steps, ...also].sort((a, b) => at(a) - at(b) || a.spot.fret - b.spot.fret);
}

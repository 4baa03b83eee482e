import { type Position, shapeOf } from '@crow-ladder/core';
import { type Model } from './model.ts';

/** How a shape that the player knows is named: it is known in every key. */
export const knownId = ({ scale }: Model, position: Position): string => `${scale.id} ${shapeOf(position)}`;

/** The positions whose shapes the player knows. */
export function knownPositions(model: Model, known: readonly string[]): readonly Position[] {
  if (!known.length || !model.positions.ok) return [];
  const shapes = new Set(known);
  return model.positions.value.filter((p) => shapes.has(knownId(model, p)));
}

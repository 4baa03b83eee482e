import { type Neck } from '../neck.ts';
import { type Position } from '../position.ts';
import { type HandOptions } from '../run/grips.ts';
import { type Source, sourceOf } from './source.ts';

/** A position, from its lowest note to its highest. */
export const positionSource = (neck: Neck, { spots }: Position, hand: HandOptions): Source =>
  sourceOf(neck, spots, hand);

import { FINGERING_SCHOOLS, type FingeringSchool } from '@crow-ladder/core/run';
import { type Params } from '../../task/task.ts';

/** How the shape is looked at. */
export interface ShapeParams {
  /** The school whose fingers are shown; null is the player's own. */
  readonly school: FingeringSchool | null;
  readonly down: boolean;
  /** Which of several fingerings, from 0. */
  readonly way: number;
  readonly slurred: boolean;
}

/** How many fingerings that really differ are offered. */
export const WAYS = 3;

export const params: Params<ShapeParams> = {
  read: (query) => {
    const way = Number(query.get('way') ?? 1) - 1;
    return {
      school: FINGERING_SCHOOLS.find((s) => s.id === query.get('school'))?.id ?? null,
      down: query.has('down'),
      way: Number.isInteger(way) && way > 0 && way < WAYS ? way : 0,
      slurred: query.has('slurred'),
    };
  },
  write: ({ school, down, way, slurred }) => ({
    school,
    down: down ? '1' : null,
    way: way ? String(way + 1) : null,
    slurred: slurred ? '1' : null,
  }),
};

import { type Planned } from '../plan/plan.ts';
import { type PlanTask } from '../plan/task.ts';
import { fingers } from '../run/fingers.ts';
import { asked, type Source, sourceFrom } from './source.ts';

/**
 * A climb that was planned, with the fingers that it was planned with.
 *
 * @example planSource(task, plan(task, 1)[0]).up.shifts // 0
 */
export function planSource({ neck, hand }: PlanTask, { steps }: Planned): Source {
  return sourceFrom(neck, fingers(neck, asked(steps), hand), hand);
}

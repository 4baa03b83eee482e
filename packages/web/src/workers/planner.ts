import { forbidding, plan, type Planned, type LimitName, type PlanTask } from '@crow-ladder/core/plan';
import { expose } from 'comlink';
import { type TaskWorker } from './useWork.ts';

/** What is to be planned, and how many ways. */
export interface PlanWork {
  readonly task: PlanTask;
  readonly ways: number;
}

/** What a plan comes to: ways, or the limits that forbid it with the easiest way that loosening each of them would give. */
export interface PlanAnswer {
  readonly plans: readonly Planned[];
  readonly forbidding: readonly { readonly limit: LimitName; readonly gives: Planned | null }[] | null;
}

/** The planner, away from the page: long plans hold nothing up. */
const planner: TaskWorker<PlanWork, PlanAnswer> = {
  work: ({ task, ways }, onNote) => {
    const plans = plan(task, ways, onNote);
    const limits = plans.length ? null : forbidding(task);
    return {
      plans,
      forbidding:
        limits &&
        limits.map((limit) => ({
          limit,
          gives: plan({ ...task, limits: { ...task.limits, [limit]: undefined } }, 1)[0] ?? null,
        })),
    };
  },
};
expose(planner);

import { type TaskEntry } from '../../task/task.ts';

/** All positions along the neck: how they interlock, where their roots are, which of them lie under the hand. */
export const ladder: TaskEntry = {
  path: 'ladder',
  name: 'Ladder',
  does: 'Show how the positions connect',
  ladder: true,
  load: () => import('./task.tsx').then((m) => m.task),
};

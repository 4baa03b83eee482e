import { type TaskEntry } from '../../task/task.ts';

/** The scale's formula on its way to the neck. */
export const formula: TaskEntry = {
  path: 'formula',
  name: 'Formula',
  does: 'Show the formula on its way to the neck',
  ladder: false,
  load: () => import('./task.tsx').then((m) => m.task),
};

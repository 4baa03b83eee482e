import { type TaskEntry } from '../../task/task.ts';

/** The shape moved: into another key or mode, on other strings, to another tuning or instrument. */
export const move: TaskEntry = {
  path: 'move',
  name: 'Move',
  does: 'Move it to another key, string set or tuning',
  ladder: false,
  load: () => import('./task.tsx').then((m) => m.task),
};

import { type TaskEntry } from '../../task/task.ts';

/** The position in front: its fingers, and everything that can be said about its shape. */
export const shape: TaskEntry = {
  path: 'shape',
  name: 'Shape',
  does: 'Show the shape and its fingers',
  ladder: false,
  load: () => import('./task.tsx').then((m) => m.task),
};

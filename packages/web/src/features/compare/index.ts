import { type TaskEntry } from '../../task/task.ts';

/** The scale beside another one, beside its modes, and what other notes are called. */
export const compare: TaskEntry = {
  path: 'compare',
  name: 'Compare',
  does: 'Compare it with another scale or mode, and name notes',
  ladder: false,
  load: () => import('./task.tsx').then((m) => m.task),
};

import { type TaskEntry } from '../../task/task.ts';

/** The player's own words about a chart. */
export const notes: TaskEntry = {
  path: 'notes',
  name: 'Notes',
  does: 'Show notes and tags',
  ladder: false,
  above: true,
  load: () => import('./task.tsx').then((m) => m.task),
};

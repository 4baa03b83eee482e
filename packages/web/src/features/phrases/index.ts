import { type TaskEntry } from '../../task/task.ts';
import { BOTH_KEY } from './keys.ts';

/** Licks: made, kept, and moved anywhere. */
export const phrases: TaskEntry = {
  path: 'phrases',
  name: 'Phrases',
  does: 'Make and move its phrases',
  phrase: 'phrase',
  ladder: false,
  keys: [{ key: BOTH_KEY, does: 'In Phrases: hear it as it was made, then as it was moved' }],
  load: () => import('./task.tsx').then((m) => m.task),
};

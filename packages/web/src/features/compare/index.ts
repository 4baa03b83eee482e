import { LOWER_KEY, RAISE_KEY } from './keys.ts';
import { type TaskEntry } from '../../task/task.ts';

/** The scale beside another one, beside its modes, and what other notes are called. */
export const compare: TaskEntry = {
  path: 'compare',
  name: 'Compare',
  does: 'Compare it with another scale or mode, and name notes',
  ladder: false,
  keys: [
    { key: RAISE_KEY, does: 'In Compare: raise the note of the chosen spot by a half step' },
    { key: LOWER_KEY, does: 'In Compare: lower the note of the chosen spot by a half step' },
  ],
  load: () => import('./task.tsx').then((m) => m.task),
};

import { type TaskEntry } from '../../task/task.ts';

/** The chords of the scale: on every degree, inside the position, and as they are held. */
export const chords: TaskEntry = {
  path: 'chords',
  name: 'Chords',
  does: 'Play and hold the chords of its scale',
  ladder: false,
  load: () => import('./task.tsx').then((m) => m.task),
};

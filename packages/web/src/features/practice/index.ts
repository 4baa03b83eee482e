import { type TaskEntry } from '../../task/task.ts';

/** The shape drilled: up and down and in every other order, heard, in time. */
export const practice: TaskEntry = {
  path: 'practice',
  name: 'Practice',
  does: 'Play drills on it, in time',
  ladder: false,
  keys: [
    { key: 'Space', does: 'In Practice: play and stop' },
    { key: 'c', does: 'In Practice, while it plays: that round was clean' },
  ],
  load: () => import('./task.tsx').then((m) => m.task),
};

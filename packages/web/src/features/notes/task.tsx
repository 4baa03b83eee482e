import { defineTask } from '../../task/task.ts';
import { marksOf } from '../../model/marks.ts';
import { Panel } from './Panel.tsx';

export const task = defineTask<null>({
  params: { read: () => null, write: () => ({}) },
  scene: (model, _, shown) => ({ marks: marksOf(model, shown) }),
  Panel,
});

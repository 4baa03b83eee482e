import { defineTask } from '../../frame/task.ts';
import { marksOf } from '../../model/marks.ts';
import { CloseUp } from './CloseUp.tsx';
import { params, type ShapeParams } from './params.ts';

export const task = defineTask<ShapeParams>({
  params,
  scene: (model, _, shown) => ({ marks: marksOf(model, shown) }),
  Panel: CloseUp,
});

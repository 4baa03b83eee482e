import { defineTask } from '../../task/task.ts';
import { marksOf } from '../../model/marks.ts';
import { CloseUp } from './CloseUp.tsx';
import { onPaper } from './onPaper.ts';
import { params, type ShapeParams } from './params.ts';
import { risingFingering } from './shown.ts';

export const task = defineTask<ShapeParams>({
  params,
  fingering: risingFingering,
  scene: (model, asked, shown) => ({ marks: marksOf(model, shown, () => risingFingering(model, asked)) }),
  paper: onPaper,
  Panel: CloseUp,
});

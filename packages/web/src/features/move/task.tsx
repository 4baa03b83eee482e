import { defineTask } from '../../task/task.ts';
import { Panel } from './Panel.tsx';
import { type MoveParams, params } from './params.ts';
import { picking, scene } from './scene.ts';
import { fretsOf, insteadOf } from './seen.ts';

export const task = defineTask<MoveParams>({
  params,
  scene,
  picking,
  frets: fretsOf,
  instead: insteadOf,
  Panel,
});

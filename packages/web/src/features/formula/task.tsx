import { defineTask } from '../../task/task.ts';
import { Panel } from './Panel.tsx';
import { type FormulaParams, params } from './params.ts';
import { scene } from './scene.ts';

export const task = defineTask<FormulaParams>({ params, scene, Panel });

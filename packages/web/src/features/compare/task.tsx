import { defineTask } from '../../task/task.ts';
import { Panel } from './Panel.tsx';
import { type CompareParams, params } from './params.ts';
import { picking, scene } from './scene.ts';

export const task = defineTask<CompareParams>({ params, scene, picking, Panel });

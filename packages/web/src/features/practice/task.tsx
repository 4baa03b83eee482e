import { defineTask } from '../../task/task.ts';
import { onPaper } from './onPaper.ts';
import { Panel } from './Panel.tsx';
import { type PracticeParams, params } from './params.ts';
import { scene } from './scene.ts';

export const task = defineTask<PracticeParams>({ params, scene, paper: onPaper, Panel });

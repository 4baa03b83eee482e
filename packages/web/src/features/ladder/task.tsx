import { defineTask } from '../../task/task.ts';
import { Beside } from './Beside.tsx';
import { Panel } from './Panel.tsx';
import { type LadderParams, params } from './params.ts';
import { scene } from './scene.ts';
import { fretsOf } from './seen.ts';

export const task = defineTask<LadderParams>({ params, scene, frets: fretsOf, Panel, Beside });

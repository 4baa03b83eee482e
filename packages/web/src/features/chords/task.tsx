import { defineTask } from '../../task/task.ts';
import { Panel } from './Panel.tsx';
import { type ChordParams, params } from './params.ts';
import { gripNow, scene } from './sounded.ts';

/** Frets beside a grip that a narrow screen shows with it. */
const BESIDE = 2;

export const task = defineTask<ChordParams>({
  params,
  scene,
  frets: (model, it) => {
    const grip = it.view === 'hold' ? gripNow(model, it) : undefined;
    if (!grip) return null;
    const [low, high] = grip.frets;
    return [Math.max(0, low - BESIDE), Math.min(model.neck.frets, Math.max(high, low + 3) + BESIDE)];
  },
  Panel,
});

import { defineTask } from '../../task/task.ts';
import { movedTo, phraseNow } from './moved.ts';
import { onPaper } from './onPaper.ts';
import { Panel } from './Panel.tsx';
import { params, type PhraseParams } from './params.ts';
import { frets, picking, scene } from './scene.ts';

export const task = defineTask<PhraseParams>({
  params,
  scene,
  picking,
  frets,
  instead: (model, it, settings) => {
    const now = it.view === 'key' || it.view === 'mode' ? phraseNow(model, it) : null;
    const moved = now && movedTo(model, settings, now.here, it);
    return moved?.instead ? { said: moved.instead, model: moved.model } : null;
  },
  paper: onPaper,
  Panel,
});

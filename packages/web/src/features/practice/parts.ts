import { type PanelProps } from '../../task/task.ts';
import { type PracticeParams } from './params.ts';

/** What every part of the panel is given. */
export interface PartProps extends Pick<PanelProps<PracticeParams>, 'model' | 'params'> {
  /** Changes some of what is practised. */
  readonly put: (part: Partial<PracticeParams>) => void;
  /** The tempo that it is played at. */
  readonly tempo: number;
  readonly onTempo: (tempo: number) => void;
}

/** Another thing to practise: it begins at its first note, and at a tempo of its own. */
export const ANEW = {
  part: null,
  step: 0,
  heard: null,
  setFor: null,
  rung: { clean: 0, best: null },
} as const;

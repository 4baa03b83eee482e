import { type Practised, type RoundQuery } from '@crow-ladder/contract';
import { comfortable } from '@crow-ladder/core/practice';
import { TEMPO } from '@crow-ladder/core/run';
import { useCallback, useMemo } from 'react';
import { usePractised } from '../../app/practised.ts';
import { ANYTHING, type PracticeParams } from './params.ts';

/**
 * The tempo that something is practised at: what the player set for it, else where the log of practice says that it is comfortable,
 * else what was played last. `setting` is a change of it, kept within bounds.
 */
export function useTempo(
  { tempo: last, setFor }: PracticeParams,
  log: RoundQuery | null,
): {
  readonly tempo: number;
  readonly practised: Practised | undefined;
  readonly setting: (tempo: number) => Pick<PracticeParams, 'tempo' | 'setFor'>;
} {
  const { drill, shape, perBeat } = log ?? {};
  const asked = useMemo(
    () =>
      drill !== undefined && shape !== undefined && perBeat !== undefined ? { drill, shape, perBeat } : null,
    [drill, shape, perBeat],
  );
  const practised = usePractised(asked);
  const what = asked && JSON.stringify(asked);
  const start = practised ? comfortable(practised.rounds) : null;
  const tempo = setFor === what || setFor === ANYTHING || start === null ? last : start;
  const setting = useCallback(
    (to: number) => ({ tempo: Math.max(TEMPO.least, Math.min(TEMPO.most, Math.round(to))), setFor: what }),
    [what],
  );
  return { tempo, practised, setting };
}

import { type Result } from '@crow-ladder/core';
import { canBeWritten, type PhraseWay } from '@crow-ladder/core/phrases';
import { type ScoreOptions } from '@crow-ladder/core/notation';
import { QUARTER } from '@crow-ladder/core/run';
import { clefOf, type Model } from '../../model/model.ts';

/** Whether the lengths of a phrase, its rests too, can be written in bars of so many quarter notes. */
export function canWrite({ run, ticks }: PhraseWay, beats: number): Result<unknown> {
  const before = run[0]?.start ?? 0;
  const lengths = run.flatMap(({ start, length }, i) => {
    const gap = (run[i + 1]?.start ?? ticks) - start - length;
    return [{ length }, ...(gap > 0 ? [{ length: gap }] : [])];
  });
  return canBeWritten(before ? [{ length: before }, ...lengths] : lengths, beats);
}

/** How a phrase is written: to the end of its last bar. */
export function writtenAs(model: Model, { ticks }: PhraseWay, beats: number): ScoreOptions {
  const bar = beats * QUARTER;
  return { beats, until: Math.ceil(ticks / bar) * bar, usual: clefOf(model) };
}

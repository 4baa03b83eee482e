import { type PositionRef } from '@crow-ladder/core';

/** A position's name in the address: start degree, lowest fret, and which of several where there are several. */
export const refWord = ({ start, low, nth }: PositionRef): string =>
  [start, low, ...(nth ? [nth] : [])].join('.');
export function refFrom(word: string): unknown {
  const [start, low, nth = 0] = word.split('.').map(Number);
  return { start, low, nth };
}

import { densest, mean } from '../arithmetic.ts';

/** A click comes back within so many seconds, each time by the same within this; and so much of them must. */
const BACK = { within: 0.6, close: 0.012, part: 0.7 };

/**
 * How much later than they were sounded clicks come back from a device, in seconds, and how far from it one of them at most; null where they
 * do not: `heard` are the moments of what was heard, `played` those of the clicks.
 *
 * @example delayAmong([0.05, 0.56, 1.35], [0, 0.5, 1.3]).delay.toFixed(2) // "0.05"
 */
export function delayAmong(
  heard: readonly number[],
  played: readonly number[],
): { readonly delay: number; readonly within: number } | null {
  const lags = played
    .flatMap((at, click) =>
      heard.flatMap((h) => (h > at - BACK.close && h < at + BACK.within ? [{ click, lag: h - at }] : [])),
    )
    .sort((a, b) => a.lag - b.lag);
  const best = densest(lags, BACK.close, ({ lag }) => lag);
  if (new Set(best.map(({ click }) => click)).size < BACK.part * played.length || !best.length) return null;
  const delay = Math.max(0, mean(best.map(({ lag }) => lag)));
  return { delay, within: Math.max(...best.map(({ lag }) => Math.abs(lag - delay))) };
}

import { densest } from '../arithmetic.ts';

/** What a loudspeaker plays is heard so many seconds later at most, each time by the same within this. */
const LATER = 0.15;
const CLOSE = 0.012;
/** So many of what was played at least, and this part of it, must come back for it to be told from what a player does. */
const COMES_BACK = { least: 3, part: 0.12 };

/**
 * Which of some moments are what a loudspeaker played, in seconds: where enough of what was played comes back by one and the same time
 * later, what does so is that, and the player's own notes are left.
 *
 * @example ownAmong([0.03, 0.4, 1.03, 2.03], [0, 1, 2]) // [0,2,3]
 */
export function ownAmong(moments: readonly number[], own: readonly number[]): readonly number[] {
  const lags = moments
    .flatMap((at, i) =>
      own.flatMap((played) => (at >= played && at <= played + LATER ? [{ i, lag: at - played }] : [])),
    )
    .sort((a, b) => a.lag - b.lag);
  const best = densest(lags, 2 * CLOSE, ({ lag }) => lag);
  const enough = Math.max(COMES_BACK.least, COMES_BACK.part * own.length);
  return best.length >= enough ? [...new Set(best.map(({ i }) => i))].sort((a, b) => a - b) : [];
}

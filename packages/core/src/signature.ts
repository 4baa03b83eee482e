/** Largest span of one hand without a stretch, in frets. */
const HAND = 3;

/**
 * The fingers of one group of frets on a string, read as players memorise it: `1 2 4`, `1 3 stretch 4`.
 * `base` is the fret of the index finger; a group inside its hand is read from there (`2 4`), any other from its own
 * lowest fret. A span of four frets is stretched at its widest gap (the upper of equals), more is a slide on the finger just
 * used.
 */
export function fingerGroup(frets: readonly number[], base: number): string {
  const low = frets[0]!;
  const span = frets.at(-1)! - low;
  const inHand = low >= base && frets.at(-1)! <= base + HAND;
  if (span <= HAND) {
    const index = inHand && frets.length < 3 ? base : low;
    return frets.map((f) => f - index + 1).join(' ');
  }
  if (span > HAND + 1 || frets.length > 4) {
    let index = low;
    return frets
      .map((f, i) => {
        if (f <= index + HAND) return String(f - index + 1);
        const finger = frets[i - 1]! - index + 1;
        index = f - finger + 1;
        return `slide ${finger}`;
      })
      .join(' ');
  }
  let widest = 1;
  for (let i = 1; i < frets.length; i++)
    if (frets[i]! - frets[i - 1]! >= frets[widest]! - frets[widest - 1]!) widest = i;
  return frets
    .map((f, i) => (i < widest ? `${f - low + 1}` : `${i === widest ? 'stretch ' : ''}${f - low}`))
    .join(' ');
}

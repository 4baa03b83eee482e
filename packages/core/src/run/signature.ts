import { type Place } from '../place.ts';
import { type Fingered, moveTo, stretchOf, TAP } from './run.ts';

/**
 * Notes that follow each other on one string, as places in a run.
 *
 * @example stringVisits(box.spots).length // 6
 */
export function stringVisits(places: readonly Place[]): readonly (readonly number[])[] {
  const visits: number[][] = [];
  places.forEach(({ string }, i) => {
    if (i > 0 && places[i - 1]!.string === string) visits.at(-1)!.push(i);
    else visits.push([i]);
  });
  return visits;
}

/**
 * A finger as it is written: its number, 0 for an open string, t for a tap.
 *
 * @example fingerSign(TAP) // "t"
 */
export const fingerSign = (finger: number): string => (finger === TAP ? 't' : String(finger));

/**
 * The fingers of notes on one string, as players memorise them: `1 2 4`, `1 3 stretch 4`; `s3` is reached by a slide on the
 * third finger, `|` is a shift of the hand.
 *
 * @example fingersSaid(steps, [0, 1]) // "1 4"
 */
export function fingersSaid(steps: readonly Fingered[], visit: readonly number[]): string {
  return visit
    .map((i, k) => {
      const step = steps[i]!;
      const stretch = stretchOf(step);
      const move = k ? moveTo(steps, i) : 'stay';
      const joint = move === 'closeUp' || move === 'shift' ? '| ' : move === 'slide' ? 's' : '';
      const said = `${joint}${fingerSign(step.finger)}`;
      // The word stands in the gap that is stretched, whichever way the line goes.
      const [from, to] = k ? [visit[k - 1]!, i] : [i, visit[1] ?? i];
      const rising = steps[from]!.spot.fret <= steps[to]!.spot.fret;
      if (move === 'slide' || stretch === 0) return said;
      const before = stretch > 0 === rising;
      return before ? `stretch ${said}` : k < visit.length - 1 ? `${said} stretch` : said;
    })
    .join(' ');
}

/**
 * A shape's signature: the fingers string by string in the order of play, "1 4 / 1 3 / …".
 *
 * @example signatureOf(steps) // "1 4 / 1 3 / 1 3 / 1 3 / 1 4 / 1 4"
 */
export const signatureOf = (steps: readonly Fingered[]): string =>
  stringVisits(steps.map((s) => s.spot))
    .map((visit) => fingersSaid(steps, visit))
    .join(' / ');

/**
 * Strings whose groups are fingered alike: where the pattern repeats.
 *
 * @example repeatedGroups(steps)[0] // {"fingers":"1 4","strings":[6,2,1]}
 */
export function repeatedGroups(
  steps: readonly Fingered[],
): readonly { readonly fingers: string; readonly strings: readonly number[] }[] {
  const by = new Map<string, Set<number>>();
  for (const visit of stringVisits(steps.map((s) => s.spot))) {
    const said = fingersSaid(steps, visit);
    by.set(said, (by.get(said) ?? new Set()).add(steps[visit[0]!]!.spot.string));
  }
  return [...by]
    .filter(([, strings]) => strings.size > 1)
    .map(([fingers, strings]) => ({ fingers, strings: [...strings] }));
}

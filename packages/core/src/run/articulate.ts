import { type Articulated, type Fingered, moveTo, type Route, TAP } from './run.ts';
import { stringVisits } from './signature.ts';

/** How notes that the fingers reach on the same string are struck: all picked, slurred both ways, or only upward or downward. */
export type Touch = 'picked' | 'slurred' | 'hammered' | 'pulled';

/**
 * A route whose highest note on each string, where it lies above others there, is tapped by the picking hand. Chosen before
 * the fingers, as a tapped note needs none of them.
 *
 * @example tapped(box.spots).filter((n) => n.by === TAP).length // 6
 */
export function tapped(route: Route): Route {
  const by = new Set(
    stringVisits(route).flatMap((visit) => {
      const frets = visit.map((i) => route[i]!.fret);
      const top = Math.max(...frets);
      return Math.min(...frets) < top ? visit.filter((i) => route[i]!.fret === top) : [];
    }),
  );
  return route.map((note, i) => (by.has(i) ? { ...note, by: TAP } : note));
}

/**
 * How each note is reached. A tapped note is tapped. A finger that keeps the string slides, or, where `slid` says which notes are slid
 * to, goes to the others silently, and they are picked. A note on the same string from the same
 * place of the hand can be hammered by a higher finger, or pulled off to a lower one or to the open string; what the hand has to
 * travel to is picked. A note that is added to the scale is hammered or slid to from the half step below it however the others are struck.
 *
 * @example articulate(steps, 'slurred').map((s) => s.arrive[0]).join('') // "phphphphphph"
 */
export function articulate(
  steps: readonly Fingered[],
  touch: Touch = 'picked',
  slid?: ReadonlySet<number>,
): readonly Articulated[] {
  return steps.map((step, i): Articulated => {
    const before = steps[i - 1];
    const move = moveTo(steps, i);
    if (step.finger === TAP) return { ...step, arrive: 'tap' };
    // A note that is added is come to from the half step below.
    const isBelow = before?.spot.fret === step.spot.fret - 1;
    const isSlidTo = step.spot.added === 'slid' && isBelow;
    if (move === 'slide') return { ...step, arrive: slid && !slid.has(i) && !isSlidTo ? 'pick' : 'slide' };
    const isWayIn = step.spot.added === 'rest' && isBelow;
    const along = before?.spot.string === step.spot.string && before.spot.fret !== step.spot.fret;
    if ((touch === 'picked' && !isWayIn) || !before || !along || move !== 'stay')
      return { ...step, arrive: 'pick' };
    const up = step.spot.fret > before.spot.fret;
    const asked = isWayIn || touch === 'slurred' || touch === (up ? 'hammered' : 'pulled');
    if (asked && (up ? step.finger > before.finger : step.finger < before.finger))
      return { ...step, arrive: up ? 'hammer' : 'pull' };
    return { ...step, arrive: 'pick' };
  });
}

import { type Articulated, type Fingered, moveTo } from './run.ts';

/** Whether the notes of a string are all picked, or slurred where the fingers allow it. */
export type Touch = 'picked' | 'slurred';

/**
 * How each note is reached. A finger that keeps the string slides. Slurred, a note on the same string from the same place
 * of the hand is hammered by a higher finger, or pulled off to a lower one or to the open string; what the hand has to
 * travel to is picked.
 */
export function articulate(steps: readonly Fingered[], touch: Touch = 'picked'): readonly Articulated[] {
  return steps.map((step, i): Articulated => {
    const before = steps[i - 1];
    const move = moveTo(steps, i);
    if (move === 'slide') return { ...step, arrive: 'slide' };
    const along = before?.spot.string === step.spot.string && before.spot.fret !== step.spot.fret;
    if (touch === 'picked' || !before || !along || move !== 'stay') return { ...step, arrive: 'pick' };
    const up = step.spot.fret > before.spot.fret;
    if (up ? step.finger > before.finger : step.finger < before.finger)
      return { ...step, arrive: up ? 'hammer' : 'pull' };
    return { ...step, arrive: 'pick' };
  });
}

import { type Neck, spanOn } from '../neck.ts';
import { type Fingered, presses } from './run.ts';

/** What one place of the hand takes, between two moves of it. */
export interface HandPlace {
  /** The first note that is taken there, and the one after the last. */
  readonly from: number;
  readonly to: number;
  /** Lowest and highest fret that is pressed there. */
  readonly frets: readonly [number, number];
  /** From the one to the other, in mm; bent or not. */
  readonly mm: number;
}

/**
 * The places of the hand in a run, in order, with the frets that each takes; where only open strings are played none is pressed.
 *
 * @example handPlaces(neck, fingers(neck, box.spots, hand).steps).map((p) => p.frets) // [[5,8]]
 */
export function handPlaces(neck: Neck, steps: readonly Fingered[]): readonly HandPlace[] {
  const out: { from: number; to: number; frets: [number, number] }[] = [];
  let isNew = true;
  steps.forEach(({ spot, finger, hand }, i) => {
    if (i > 0 && steps[i - 1]!.hand !== hand) isNew = true;
    if (!presses(finger)) return;
    const last = out.at(-1);
    if (isNew || !last) out.push({ from: i, to: i + 1, frets: [spot.fret, spot.fret] });
    else {
      last.to = i + 1;
      last.frets = [Math.min(last.frets[0], spot.fret), Math.max(last.frets[1], spot.fret)];
    }
    isNew = false;
  });
  return out.map((place) => ({ ...place, mm: spanOn(neck, ...place.frets) }));
}

/**
 * The place of the hand that is widest in mm; null where nothing is pressed.
 *
 * @example widestHand(neck, steps)?.frets // [5,8]
 */
export const widestHand = (neck: Neck, steps: readonly Fingered[]): HandPlace | null =>
  handPlaces(neck, steps).reduce<HandPlace | null>(
    (so, place) => (so && so.mm >= place.mm ? so : place),
    null,
  );

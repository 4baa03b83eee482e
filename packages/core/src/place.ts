/** One string at one fret. */
export interface Place {
  /** String number; 1 is the highest as the tuning is written. */
  readonly string: number;
  /** Fret counted from the nut, or from the capo where there is one; 0 is the open string. */
  readonly fret: number;
}

/** A place with its pitch, and its degree in a key. */
export interface Spot extends Place {
  /** MIDI number. */
  readonly midi: number;
  /** Index into the scale's degrees, −1 outside the scale. */
  readonly degree: number;
  /** Where it is played beside the scale: to be rested on, or only touched on the way. */
  readonly added?: 'rest' | 'slid' | 'passing';
}

/**
 * A number that names a place.
 *
 * @example placeId({ string: 6, fret: 5 }) // 605
 */
export const placeId = ({ string, fret }: Place): number => string * 100 + fret;

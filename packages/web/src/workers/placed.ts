import {
  asWritten,
  inFrets,
  type PhraseGround,
  type PhraseWay,
  placesOfPhrase,
  type Tune,
  type Within,
} from '@crow-ladder/core/phrases';

/** A tune that is to be placed. */
export interface Lot {
  readonly tune: Tune;
  readonly within: Within;
  /** How many places at most. */
  readonly most: number;
  /** Whether the strings that it was written on come first, where it lies on them. */
  readonly same: boolean;
  /** Frets that it should lie within; what does not is taken as near as can be, and named. */
  readonly inside?: readonly [number, number];
}
export interface PhraseWork {
  readonly ground: PhraseGround;
  readonly lots: readonly Lot[];
}

/** A lot placed: on its own strings first where that is asked for. */
export function placedLot(
  ground: PhraseGround,
  { tune, within, most, same, inside }: Lot,
): readonly PhraseWay[] {
  if (inside) {
    const way = inFrets(ground, tune, inside);
    return way ? [way] : [];
  }
  const written = same ? asWritten(ground, tune) : null;
  const others = placesOfPhrase(ground, tune, within, most);
  if (!written) return others;
  const first = written.run[0]?.spot.string;
  return [written, ...others.filter(({ run }) => run[0]?.spot.string !== first)].slice(0, most);
}

import {
  asWritten,
  inFrets,
  type PhraseGround,
  type PhraseWay,
  placesOfPhrase,
  type Tune,
  type Within,
} from '@crow-ladder/core/phrases';
import { expose } from 'comlink';
import { type TaskWorker } from './useWork.ts';

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

function placed(ground: PhraseGround, { tune, within, most, same, inside }: Lot): readonly PhraseWay[] {
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

/** Places phrases away from the page: long ones hold nothing up. */
const phraser: TaskWorker<PhraseWork, readonly (readonly PhraseWay[])[]> = {
  work: ({ ground, lots }, onLot) =>
    lots.map((lot, i) => {
      onLot(i);
      return placed(ground, lot);
    }),
};
expose(phraser);

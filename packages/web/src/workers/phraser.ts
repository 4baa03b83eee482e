import { type PhraseWay } from '@crow-ladder/core/phrases';
import { expose } from 'comlink';
import { placedLot, type PhraseWork } from './placed.ts';
import { type TaskWorker } from './useWork.ts';

/** Places phrases away from the page: long ones hold nothing up. */
const phraser: TaskWorker<PhraseWork, readonly (readonly PhraseWay[])[]> = {
  work: ({ ground, lots }, onLot) =>
    lots.map((lot, i) => {
      onLot(i);
      return placedLot(ground, lot);
    }),
};
expose(phraser);

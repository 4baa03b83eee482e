import { pluck, type Plucked } from '@crow-ladder/core/sound';
import { expose, transfer } from 'comlink';

/** Renders strings away from the page: a note takes some hundredths of a second. */
export interface Plucker {
  readonly pluck: (sound: Plucked, seconds: number, rate: number) => Float32Array;
}
const plucker: Plucker = {
  pluck: (sound, seconds, rate) => {
    const samples = pluck(sound, seconds, rate);
    return transfer(samples, [samples.buffer]);
  },
};
expose(plucker);

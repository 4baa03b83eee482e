import { pluck, type VoiceName } from '@crow-ladder/core/sound';
import { expose, transfer } from 'comlink';

/** Renders strings away from the page: a note takes some hundredths of a second. */
export interface Plucker {
  readonly pluck: (midi: number, seconds: number, rate: number, voice: VoiceName) => Float32Array;
}
const plucker: Plucker = {
  pluck: (midi, seconds, rate, voice) => {
    const sound = pluck(midi, seconds, rate, voice);
    return transfer(sound, [sound.buffer]);
  },
};
expose(plucker);

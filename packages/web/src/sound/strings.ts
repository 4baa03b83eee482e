import { type Plucked } from '@crow-ladder/core/sound';
import { type Remote, wrap } from 'comlink';
import { type Plucker } from '../workers/plucker.ts';

/** How long a string is rendered for, in seconds: longer than any note lasts here. */
const SECONDS = 3;
/** So many sounds are kept, each of about half a megabyte; what was not asked for the longest goes first. */
const MOST_KEPT = 200;

/** The sounds of strings, each rendered once, when it is first asked for. */
export function stringsFor(ctx: BaseAudioContext) {
  const kept = new Map<string, Promise<AudioBuffer>>();
  let worker: Remote<Plucker> | null = null;
  const plucker = (): Remote<Plucker> =>
    (worker ??= wrap<Plucker>(
      new Worker(new URL('../workers/plucker.ts', import.meta.url), { type: 'module' }),
    ));
  const render = async (sound: Plucked): Promise<AudioBuffer> => {
    const samples = await plucker().pluck(sound, SECONDS, ctx.sampleRate);
    const buffer = ctx.createBuffer(1, samples.length, ctx.sampleRate);
    buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, 0);
    return buffer;
  };
  const one = (sound: Plucked): Promise<AudioBuffer> => {
    const id = Object.values(sound).join(' ');
    const known = kept.get(id) ?? render(sound);
    kept.delete(id);
    kept.set(id, known);
    // What could not be rendered is tried again when it is asked for again.
    known.catch(() => kept.delete(id));
    for (const [oldest] of kept) {
      if (kept.size <= MOST_KEPT) break;
      kept.delete(oldest);
    }
    return known;
  };
  return (sounds: readonly Plucked[]): Promise<readonly AudioBuffer[]> => Promise.all(sounds.map(one));
}

import { type Run } from '@crow-ladder/core/run';
import { type Plucked, TAKES, type VoiceName } from '@crow-ladder/core/sound';
import { type Remote, wrap } from 'comlink';
import { type Plucker } from '../workers/plucker.ts';

/** How long a string is rendered for, in seconds: longer than any note lasts here. */
const SECONDS = 3;
/** So many sounds are kept, each of about half a megabyte; what was not asked for the longest goes first. */
const MOST_KEPT = 200;

/** What an instrument's strings are like: strings with a number above this are wound. */
export interface Strung {
  readonly voice: VoiceName;
  readonly plain: number;
}

/** What each note of a run sounds like: on its string, as it is struck, and no two in a row alike. */
export const soundsOf = (run: Run, { voice, plain }: Strung): readonly Plucked[] =>
  run.map(({ spot, arrive }, i) => ({
    midi: spot.midi,
    voice,
    fret: spot.fret,
    wound: spot.string > plain,
    arrive,
    take: i % TAKES,
  }));

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

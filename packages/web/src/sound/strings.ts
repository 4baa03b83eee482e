import { type VoiceName } from '@crow-ladder/core/sound';
import { type Remote, wrap } from 'comlink';
import { type Plucker } from '../workers/plucker.ts';

/** How long a string is rendered for, in seconds: longer than any note lasts here. */
const SECONDS = 3;

/** The sounds of strings, each rendered once, when it is first asked for. */
export function stringsFor(ctx: BaseAudioContext) {
  const kept = new Map<string, Promise<AudioBuffer>>();
  let worker: Remote<Plucker> | null = null;
  const plucker = (): Remote<Plucker> =>
    (worker ??= wrap<Plucker>(
      new Worker(new URL('../workers/plucker.ts', import.meta.url), { type: 'module' }),
    ));
  const render = async (midi: number, voice: VoiceName): Promise<AudioBuffer> => {
    const samples = await plucker().pluck(midi, SECONDS, ctx.sampleRate, voice);
    const buffer = ctx.createBuffer(1, samples.length, ctx.sampleRate);
    buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, 0);
    return buffer;
  };
  return async (pitches: readonly number[], voice: VoiceName): Promise<ReadonlyMap<number, AudioBuffer>> => {
    const wanted = [...new Set(pitches)];
    for (const midi of wanted) {
      const id = `${voice} ${midi}`;
      if (!kept.has(id)) kept.set(id, render(midi, voice));
    }
    return new Map(
      await Promise.all(wanted.map(async (m) => [m, await kept.get(`${voice} ${m}`)!] as const)),
    );
  };
}

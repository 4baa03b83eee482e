import { type Plucked } from '@crow-ladder/core/sound';
import { type stringsFor } from './strings.ts';

/** How long after the note below it each note of a chord is struck, in seconds. */
const STRUM = 0.018;
/** Notes below this are on wound strings, MIDI. */
const WOUND_BELOW = 55;
/** So that a chord is as loud as one of its notes twice. */
const loudness = (notes: number): number => 1 / Math.sqrt(notes);

/** The sound of chords, each mixed once from the strings that are struck: pitches in MIDI numbers, the first one first. */
export function chordsFor(ctx: BaseAudioContext, strings: ReturnType<typeof stringsFor>) {
  const kept = new Map<string, Promise<AudioBuffer>>();
  const mix = async (pitches: readonly number[]): Promise<AudioBuffer> => {
    const notes = await strings(
      pitches.map((midi): Plucked => ({
        midi,
        voice: 'guitar',
        fret: 0,
        wound: midi < WOUND_BELOW,
        arrive: 'pick',
        take: 0,
      })),
    );
    const later = notes.map((_, i) => Math.round(i * STRUM * ctx.sampleRate));
    const out = ctx.createBuffer(1, Math.max(...notes.map((n, i) => n.length + later[i]!)), ctx.sampleRate);
    const sum = out.getChannelData(0);
    notes.forEach((note, i) => {
      const samples = note.getChannelData(0);
      for (let k = 0; k < samples.length; k++) sum[k + later[i]!]! += samples[k]! * loudness(notes.length);
    });
    return out;
  };
  return (pitches: readonly number[]): Promise<AudioBuffer> => {
    const id = pitches.join(' ');
    const known = kept.get(id) ?? mix(pitches);
    kept.set(id, known);
    known.catch(() => kept.delete(id));
    return known;
  };
}

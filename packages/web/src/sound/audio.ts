import { frequency } from '@crow-ladder/core';
import { type VoiceName } from '@crow-ladder/core/sound';
import { chordsFor } from './chords.ts';
import { stringsFor } from './strings.ts';
import { soundDrone, soundNote } from './voices.ts';

/** The audio of this page, made when something is played first: a browser lets it sound after a click or a key alone. */
let audio: {
  readonly ctx: AudioContext;
  readonly strings: ReturnType<typeof stringsFor>;
  readonly chord: ReturnType<typeof chordsFor>;
} | null = null;
export function audioNow() {
  if (!audio) {
    const ctx = new AudioContext();
    const strings = stringsFor(ctx);
    audio = { ctx, strings, chord: chordsFor(ctx, strings) };
  }
  return audio;
}

/** Has one note sound now, for a second. */
export async function soundOnce(midi: number, voice: VoiceName, level: number): Promise<void> {
  const { ctx, strings } = audioNow();
  await ctx.resume();
  const [buffer] = await strings([{ midi, voice, fret: 0, wound: false, arrive: 'pick', take: 0 }]);
  const out = new GainNode(ctx, { gain: level / 2 });
  out.connect(ctx.destination);
  const at = ctx.currentTime + 0.02;
  const note = soundNote(ctx, out, {
    buffer: buffer!,
    arrive: 'pick',
    slide: 0,
    held: {},
    loud: 1,
    at,
    until: at + 1,
  });
  note.onended = () => out.disconnect();
}

/** Begins a drone on pitches, MIDI numbers. */
export async function startDrone(pitches: readonly number[], level: number) {
  const { ctx } = audioNow();
  await ctx.resume();
  const out = new GainNode(ctx, { gain: level });
  out.connect(ctx.destination);
  const drone = soundDrone(ctx, out, pitches.map(frequency));
  return {
    stop: drone.stop,
    setLevel: (to: number): void => void out.gain.setTargetAtTime(to, ctx.currentTime, 0.01),
  };
}

import { frequency } from '@crow-ladder/core';
import { type Arrive } from '@crow-ladder/core/run';
import { pluck, type Plucked, type VoiceName } from '@crow-ladder/core/sound';
import { PitchDetector } from 'pitchy';
import { TOGETHER } from '../src/sound/playback.ts';
import { clicksFor, leavesAt, limiter, soundClick, soundDrone, soundNote } from '../src/sound/voices.ts';

interface Asked {
  readonly midi: number;
  readonly arrive: Arrive;
  readonly at: number;
}
interface Measured {
  /** Of each note: how far its pitch is off in cents, and how late it begins in ms. */
  readonly notes: readonly { readonly cents: number; readonly clarity: number; readonly late: number }[];
  /** How late each click begins, in ms. */
  readonly clicks: readonly number[];
  readonly loudest: number;
  /** How loud the fastest notes, clicks on them and a drone are together, all as loud as they can be set. */
  readonly together: number;
  /** How loud it is where all of the notes sound at once, as after a page stood still. */
  readonly atOnce: number;
}

const RATE = 48_000;
const HEARD = 0.7;
/** Notes a second: sextuplets at 300. */
const FASTEST = 30;
/** What is louder than this has begun. */
const BEGUN = 0.02;
const SIZE = 16_384;

/** When what sounds from about `at` on begins, in seconds; what sounded before is over by then. */
function onset(sound: Float32Array, at: number): number {
  const from = Math.round((at - 0.05) * RATE);
  return (from + sound.subarray(from).findIndex((s) => Math.abs(s) > BEGUN)) / RATE;
}

/** When a note is begun: a slide leaves before its time. */
const begins = (arrive: Arrive, at: number): number => (arrive === 'slide' ? leavesAt(at) : at);

/** Renders notes and clicks as the page sounds them, and measures what comes out. */
async function measure(
  notes: readonly Asked[],
  clicks: readonly number[],
  voice: VoiceName,
): Promise<Measured> {
  const end = Math.max(0, ...notes.map((n) => n.at), ...clicks) + 1.5;
  const bufferOf = (ctx: BaseAudioContext, midi: number, arrive: Arrive): AudioBuffer => {
    const sound: Plucked = { midi, voice, fret: 0, wound: midi < 55, arrive, take: 0 };
    const samples = pluck(sound, 3, RATE);
    const buffer = ctx.createBuffer(1, samples.length, RATE);
    buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, 0);
    return buffer;
  };
  const render = async (fill: (ctx: OfflineAudioContext) => void): Promise<Float32Array> => {
    const ctx = new OfflineAudioContext(1, Math.ceil(end * RATE), RATE);
    fill(ctx);
    return (await ctx.startRendering()).getChannelData(0);
  };
  const sound = await render((ctx) => {
    notes.forEach(({ midi, arrive, at }, i) => {
      const buffer = bufferOf(ctx, midi, arrive);
      const slide = arrive === 'slide' ? midi - notes[i - 1]!.midi : null;
      soundNote(ctx, ctx.destination, { buffer, arrive, slide, loud: 1, at, until: at + HEARD });
    });
  });
  const clicked = await render((ctx) => {
    const { accent, beat } = clicksFor(ctx);
    clicks.forEach((at, i) => soundClick(ctx, ctx.destination, i % 4 ? beat : accent, at));
  });
  const most = await render((ctx) => {
    const out = new GainNode(ctx, { gain: TOGETHER });
    out.connect(limiter(ctx));
    const { accent } = clicksFor(ctx);
    notes.forEach(({ midi }, i) => {
      const buffer = bufferOf(ctx, midi, 'pick');
      const at = 0.8 + i / FASTEST;
      soundNote(ctx, out, { buffer, arrive: 'pick', slide: null, loud: 1, at, until: at + 1 / FASTEST });
      soundClick(ctx, out, accent, at);
    });
    soundDrone(ctx, ctx.destination, [110, 165, 220, 275]);
  });
  const stalled = await render((ctx) => {
    const out = limiter(ctx);
    for (let i = 0; i < 34; i++)
      soundNote(ctx, out, {
        buffer: bufferOf(ctx, notes[i % notes.length]!.midi, 'pick'),
        arrive: 'pick',
        slide: null,
        loud: 1.4,
        at: 0.1,
        until: 0.6,
      });
  });
  const detector = PitchDetector.forFloat32Array(SIZE);
  const peak = (all: Float32Array): number => all.reduce((m, s) => Math.max(m, Math.abs(s)), 0);
  return {
    notes: notes.map(({ midi, arrive, at }) => {
      const from = Math.round((at + 0.2) * RATE);
      const [hz, clarity] = detector.findPitch(sound.subarray(from, from + SIZE), RATE);
      return {
        cents: 1200 * Math.log2(hz / frequency(midi)),
        clarity,
        late: (onset(sound, begins(arrive, at)) - begins(arrive, at)) * 1000,
      };
    }),
    clicks: clicks.map((at) => (onset(clicked, at) - at) * 1000),
    loudest: Math.max(peak(sound), peak(clicked)),
    together: peak(most),
    atOnce: peak(stalled),
  };
}
Object.assign(window, { measure });

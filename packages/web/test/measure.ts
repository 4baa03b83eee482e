import { frequency } from '@crow-ladder/core';
import { type Arrive, bendTimes, bentAt, QUARTER, type Run, scheduleOf } from '@crow-ladder/core/run';
import { pluck, type Plucked, TAKES, type VoiceName } from '@crow-ladder/core/sound';
import { PitchDetector } from 'pitchy';
import { playback, TOGETHER } from '../src/sound/playback.ts';
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
      const slide = arrive === 'slide' ? midi - notes[i - 1]!.midi : 0;
      soundNote(ctx, ctx.destination, { buffer, arrive, slide, held: {}, loud: 1, at, until: at + HEARD });
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
      soundNote(ctx, out, {
        buffer,
        arrive: 'pick',
        slide: 0,
        held: {},
        loud: 1,
        at,
        until: at + 1 / FASTEST,
      });
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
        slide: 0,
        held: {},
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

/** A piece of a record: what sounded from a time of the audio clock on, in seconds. */
interface Recorded {
  readonly sound: Float32Array;
  readonly from: number;
}
const RECORDER = `registerProcessor('recorder', class extends AudioWorkletProcessor {
  process([[channel]]) {
    this.port.postMessage([currentFrame, channel ? channel.slice() : new Float32Array(128)]);
    return true;
  }
});`;

/** A context whose destination is recorded on the audio's own thread, so that nothing is lost where the page stands still. */
async function recording(): Promise<{ readonly ctx: AudioContext; readonly end: () => Promise<Recorded> }> {
  const ctx = new AudioContext({ sampleRate: RATE });
  await ctx.audioWorklet.addModule(URL.createObjectURL(new Blob([RECORDER], { type: 'text/javascript' })));
  const recorder = new AudioWorkletNode(ctx, 'recorder');
  const speaker = ctx.destination;
  recorder.connect(speaker);
  Object.defineProperty(ctx, 'destination', { value: recorder });
  const pieces: (readonly [number, Float32Array])[] = [];
  recorder.port.onmessage = ({ data }) => pieces.push(data as readonly [number, Float32Array]);
  await ctx.resume();
  const end = async (): Promise<Recorded> => {
    await new Promise((done) => setTimeout(done, 300));
    await ctx.close();
    const first = pieces[0]![0];
    const [at, last] = pieces.at(-1)!;
    const sound = new Float32Array(at - first + last.length);
    for (const [frame, samples] of pieces) sound.set(samples, frame - first);
    return { sound, from: first / RATE };
  };
  return { ctx, end };
}

/** How far a sound is from a pitch at a time, in cents: by how its phase turns within some milliseconds around it. */
function centsAt({ sound, from }: Recorded, hz: number, at: number, seconds: number): number {
  const many = Math.round((3 * seconds * RATE) / 4);
  const phase = (begin: number): number => {
    const start = Math.round((begin - from) * RATE);
    let [re, im] = [0, 0];
    for (let i = 0; i < many; i++) {
      const weight = 0.5 - 0.5 * Math.cos((2 * Math.PI * (i + 0.5)) / many);
      const angle = (2 * Math.PI * hz * (start + i)) / RATE;
      re += weight * sound[start + i]! * Math.cos(angle);
      im -= weight * sound[start + i]! * Math.sin(angle);
    }
    return Math.atan2(im, re);
  };
  const apart = seconds / 4;
  let turned = phase(at - seconds / 4) - phase(at - seconds / 2);
  turned -= 2 * Math.PI * Math.round(turned / (2 * Math.PI));
  return 1200 * Math.log2(1 + turned / (2 * Math.PI * apart * hz));
}

interface Heard {
  /** Of each note: how much later than it should it begins, in ms, and how far it is off half-way, in cents. */
  readonly notes: readonly { readonly late: number; readonly cents: number }[];
  /** Of each slide or bend: how far it is off 5 ms after it should be there, in cents, and how late it passed half of its way, a bend, in ms. */
  readonly arrived: readonly { readonly cents: number; readonly half: number }[];
  /** Notes that begin less than 20 ms after another one, or off the grid of the run, after the page stood still. */
  readonly stray: number;
  readonly after: number;
  readonly loudest: number;
  /** How much greater than before it the steps from sample to sample are at the stop. */
  readonly step: number;
  /** How loud it is a tenth of a second after it was stopped. */
  readonly left: number;
}

/** Has the page's own playback sound live: in time and in tune, then over a stall of six seconds, then stopped in the midst of a note. */
async function live(run: Run, voice: VoiceName, tempo: number): Promise<Heard> {
  const { ctx, end } = await recording();
  const beat = 60 / tempo;
  const sounds = run.map(({ spot, arrive }, i) => {
    const { midi, fret } = spot;
    const samples = pluck({ midi, voice, fret, wound: midi < 55, arrive, take: i % TAKES }, 3, RATE);
    const buffer = ctx.createBuffer(1, samples.length, RATE);
    buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, 0);
    return buffer;
  });
  const schedule = scheduleOf(run, { tempo, swing: 50, beatsPerBar: 4, countIn: 0, endsOn: QUARTER });
  const wait = (seconds: number) => new Promise((done) => setTimeout(done, seconds * 1000));
  const began = ctx.currentTime;
  const playing = playback(
    ctx,
    { run, schedule, sounds, chords: [], groups: { size: 1, from: 0 }, loop: true },
    { notes: 0.9, click: 0, chords: 0 },
    0,
    (ms, tick) => {
      const timer = setInterval(tick, ms);
      return () => clearInterval(timer);
    },
    () => undefined,
  );
  // By the clock of the sound: on a busy machine it falls behind that of the page.
  const sounded = async (at: number) => {
    while (ctx.currentTime < at) await wait(0.01);
  };
  await sounded(began + schedule.end + 1);
  const until = performance.now() + 6000;
  while (performance.now() < until);
  const stalled = ctx.currentTime;
  await sounded(stalled + 4);
  // In the midst of a note.
  const into = (ctx.currentTime - began) % beat;
  await sounded(ctx.currentTime + ((beat - into + beat * 0.25) % beat));
  const stopped = ctx.currentTime;
  playing.stop();
  const all = await end();
  const { sound, from } = all;
  const starts: number[] = [];
  // A note begins where it is loud after it was quiet for 30 ms.
  for (let i = 0, quiet = 0; i < sound.length; i++) {
    if (Math.abs(sound[i]!) < 0.004) quiet++;
    else {
      if (quiet > 0.03 * RATE) starts.push(from + i / RATE);
      quiet = 0;
    }
  }
  const zero = starts[0]! - schedule.notes[0]!.at;
  const held = ({ bend, vibrato }: Run[number]) => ({ ...(bend && { bend }), ...(vibrato && { vibrato }) });
  const length = (i: number): number => schedule.notes[i]!.until - schedule.notes[i]!.at;
  const notes = run.map((step, i) => {
    const at = zero + schedule.notes[i]!.at;
    const due = step.arrive === 'slide' ? leavesAt(at) : at;
    const start = starts.reduce((a, b) => (Math.abs(b - due) < Math.abs(a - due) ? b : a));
    const bent = bentAt(held(step), length(i) / 2, length(i));
    return {
      late: (start - due) * 1000,
      cents: centsAt(all, frequency(step.spot.midi + bent), at + length(i) / 2, 0.24),
    };
  });
  /** A window of 24 ms: what is heard 5 ms after it arrived is over by then. */
  const short = 0.024;
  const arrived = run.flatMap((step, i) => {
    const { bend, arrive, spot } = step;
    const before = run[i - 1];
    if (!bend && arrive !== 'slide') return [];
    const begins = zero + schedule.notes[i]!.at;
    const there = bend ? begins + bendTimes(bend, length(i)).there : begins;
    const hz = frequency(spot.midi + (bend?.by ?? 0));
    const away = -100 * (bend ? bend.by : spot.midi - before!.spot.midi);
    const leaves = bend ? begins : leavesAt(begins);
    // What comes before the note is not heard as a part of it.
    let half = leaves + short / 2 + 0.002;
    while (half < there + 0.1 && centsAt(all, hz, half, short) / away > 0.5) half += 0.001;
    return [
      {
        cents: centsAt(all, hz, there + 0.005 + short / 2, short),
        half: bend ? (half - (leaves + there) / 2) * 1000 : 0,
      },
    ];
  });
  const later = starts.filter((at) => at > stalled + 0.05 && at < stopped);
  const off = (at: number): number => {
    const beats = (at - starts[0]!) / beat;
    return Math.abs(beats - Math.round(beats)) * beat;
  };
  const near = later.filter((at, i) => i > 0 && at - later[i - 1]! < 0.02);
  const steps = (begin: number, seconds: number): number => {
    let most = 0;
    const start = Math.round((begin - from) * RATE);
    for (let i = start; i < start + seconds * RATE; i++)
      most = Math.max(most, Math.abs(sound[i + 1]! - sound[i]!));
    return most;
  };
  const loud = (part: Float32Array): number => part.reduce((m, s) => Math.max(m, Math.abs(s)), 0);
  return {
    notes,
    arrived,
    stray: near.length + later.filter((at) => off(at) > 0.001 && off(at + 0.06) > 0.001).length,
    after: later.length,
    loudest: loud(sound),
    step: steps(stopped, 0.06) - steps(stopped - 0.06, 0.06),
    left: loud(sound.subarray(Math.round((stopped + 0.1 - from) * RATE))),
  };
}
Object.assign(window, { measure, live });

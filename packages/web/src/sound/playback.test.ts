import { inTime, type NotesPerBeat, QUARTER, type Run, scheduleOf } from '@crow-ladder/core/run';
import { type ChordSound, playback } from './playback.ts';
import { leavesAt, soundNote } from './voices.ts';

interface Source {
  readonly at: number;
  readonly handed: number;
  readonly note: boolean;
  stopped: number | null;
}
/** A clock and what was handed to it: the parts of Web Audio that playing asks for. */
function audio() {
  const sources: Source[] = [];
  /** How loud each sound was set to be, and when. */
  const gains: { readonly to: number; readonly at: number }[] = [];
  const ctx = {
    currentTime: 0,
    sampleRate: 1000,
    destination: {},
    createBuffer: () => ({ copyToChannel: () => undefined }),
  };
  const param = {
    setValueAtTime: (to: number, at: number) => void gains.push({ to, at }),
    setTargetAtTime: () => undefined,
    linearRampToValueAtTime: () => undefined,
    exponentialRampToValueAtTime: () => undefined,
  };
  class Node {
    gain = param;
    playbackRate = param;
    connect = (to: unknown) => to;
    disconnect = () => undefined;
  }
  class Buffered extends Node {
    mine: Source | null = null;
    constructor(
      _: unknown,
      private readonly options: { buffer: { name?: string } },
    ) {
      super();
    }
    start = (at: number) => {
      this.mine = { at, handed: ctx.currentTime, note: this.options.buffer.name === 'string', stopped: null };
      sources.push(this.mine);
    };
    stop = (at?: number) => {
      if (this.mine && at === undefined) this.mine.stopped = ctx.currentTime;
    };
  }
  Object.assign(globalThis, { GainNode: Node, WaveShaperNode: Node, AudioBufferSourceNode: Buffered });
  return { ctx: ctx as unknown as AudioContext & { currentTime: number }, sources, gains };
}

const step = {
  spot: { string: 1, fret: 5, midi: 69, degree: 0 },
  finger: 1,
  hand: 5,
  arrive: 'pick',
} as const;
const run = (notes: number, perBeat: NotesPerBeat): Run =>
  inTime(
    Array.from({ length: notes }, () => step),
    perBeat,
  );
const sounds = (notes: number) =>
  Array.from({ length: notes }, () => ({ name: 'string' }) as unknown as AudioBuffer);
const at = (tempo: number, countIn = 0) => ({
  tempo,
  swing: 50,
  beatsPerBar: 4,
  countIn,
  endsOn: 4 * QUARTER,
});

/** Plays for some seconds; `looks` says how long after each look at the clock the next one comes. */
function play(
  seconds: number,
  tempo: number,
  looks: () => number,
  notes = 16,
  perBeat: NotesPerBeat = 4,
  begin = 0,
  countIn = 0,
  groups = { size: 1, from: 0 },
  chords: readonly ChordSound[] = [],
) {
  const { ctx, sources, gains } = audio();
  let tick: () => void = () => undefined;
  const it = run(notes, perBeat);
  const plan = {
    run: it,
    schedule: scheduleOf(it, at(tempo, countIn)),
    sounds: sounds(notes),
    chords,
    groups,
    loop: true,
  };
  const playing = playback(
    ctx,
    plan,
    { notes: 1, click: 1, chords: 1 },
    begin,
    (_, feed) => ((tick = feed), () => undefined),
    () => undefined,
  );
  const go = (until: number): void => {
    while (ctx.currentTime < until) {
      (ctx as { currentTime: number }).currentTime += looks();
      tick();
    }
  };
  go(seconds);
  return { ctx, sources, gains, playing, plan, go };
}

test('over five minutes of sixteenths at 300, looked after only once a second, no note is early, late or left out', () => {
  // 20 notes a second.
  const { sources } = play(300, 300, () => 0.9);
  const notes = sources.filter((s) => s.note);
  expect(notes.length).toBeGreaterThan(6000);
  const first = notes[0]!.at;
  notes.forEach((n, i) => {
    expect(Math.abs(n.at - (first + i / 20))).toBeLessThan(0.005);
    expect(n.handed).toBeLessThan(n.at);
  });
});

test('after the page has stood still for six seconds what was missed is left out, and the rest comes when it would have come', () => {
  let looked = 0;
  const { sources } = play(14, 120, () => (++looked === 10 ? 6 : 0.2));
  const notes = sources.filter((s) => s.note);
  // Eight notes a second; nothing is handed over after its time, and no two at once.
  for (const n of notes) expect(n.at).toBeGreaterThanOrEqual(n.handed - 0.02);
  notes.slice(1).forEach((n, i) => {
    const apart = (n.at - notes[i]!.at) * 8;
    expect([Math.abs(apart - Math.round(apart)) < 1e-6, apart > 0.5]).toEqual([true, true]);
  });
  expect(Math.max(...notes.slice(1).map((n, i) => n.at - notes[i]!.at))).toBeGreaterThan(2);
});

test('a slide leaves before its beat, goes over every fret, and is on pitch on the beat', () => {
  const { ctx, sources, gains } = audio();
  const out = {} as AudioNode;
  const buffer = { name: 'string' } as unknown as AudioBuffer;
  soundNote(ctx, out, { buffer, arrive: 'slide', slide: 2, held: {}, loud: 1, at: 1, until: 2 });
  expect(sources[0]!.at).toBeCloseTo(leavesAt(1), 9);
  expect(leavesAt(1)).toBeLessThan(0.96);
  const rates = gains.slice(0, 3);
  expect(rates.map((r) => 12 * Math.log2(r.to))).toEqual(
    [-2, -1, 0].map((n) => expect.closeTo(n, 6) as number),
  );
  expect(rates[2]!.at).toBeCloseTo(1, 9);
});

test('the first note of a group is 3 dB louder, also where a part is played by itself', () => {
  const { gains } = play(3, 60, () => 0.2, 12, 4, 0, 0, { size: 3, from: 1 });
  const loud = gains.slice(0, 9).map(({ to }) => 20 * Math.log10(to));
  expect(loud).toEqual([0, 0, 3, 0, 0, 3, 0, 0, 3].map((db) => expect.closeTo(db, 5) as number));
});

test('it begins at a note within a bar, on its beat, after the count-in, and goes on with the whole from there', () => {
  const { sources } = play(12, 60, () => 0.2, 16, 4, 6, 1);
  const [clicks, notes] = [sources.filter((s) => !s.note), sources.filter((s) => s.note)];
  const zero = clicks[0]!.at;
  // Four clicks alone; the beat of the seventh sixteenth begins with the fifth one, which is left out.
  expect(clicks.slice(0, 6).map((c) => c.at - zero)).toEqual(
    [0, 1, 2, 3, 4, 5].map((n) => expect.closeTo(n, 6) as number),
  );
  expect(notes.slice(0, 10).map((n) => n.at - zero)).toEqual(
    Array.from({ length: 10 }, (_, i) => expect.closeTo(4.5 + i / 4, 6) as number),
  );
  // The pass that follows is whole: its first note comes a beat of silence less than sixteen notes after the last bar began.
  expect(notes[10]!.at - zero).toBeCloseTo(7, 6);
  expect(notes[26]!.at - notes[10]!.at).toBeCloseTo(4, 6);
});

test('another tempo holds from the next sound on; what was handed over for later is taken back', () => {
  const { ctx, sources, playing, plan } = play(2.01, 60, () => 0.2);
  const due = sources.filter((s) => s.at > ctx.currentTime + 0.03);
  expect(due.length).toBeGreaterThan(0);
  playing.retime({ ...plan, schedule: scheduleOf(plan.run, at(120)) });
  expect(due.every((s) => s.stopped !== null)).toBe(true);
  const after = sources.filter((s) => s.note && s.stopped === null && s.at >= due[0]!.at);
  expect(after[0]!.at).toBeCloseTo(due[0]!.at, 6);
  after.slice(1, 8).forEach((n, i) => expect(n.at - after[i]!.at).toBeCloseTo(0.125, 6));
  expect(playing.heard().step).not.toBeNull();
});

test('chords sound at their times in every pass, and stay theirs when some come in while it plays', () => {
  const buffer = { name: 'chord' } as unknown as AudioBuffer;
  const chords = [0, 2].map((at): ChordSound => ({ at, until: at + 2, buffer }));
  // Sixteen sixteenths at 60 are four seconds; clicks and chords are told apart by what falls on a beat twice.
  const { sources } = play(7.9, 60, () => 0.2, 16, 4, 0, 0, undefined, chords);
  const zero = sources[0]!.at;
  const beats = sources.filter((s) => !s.note && s.at < zero + 7.9).map((s) => Math.round(s.at - zero));
  expect(beats).toEqual([0, 0, 1, 2, 2, 3, 4, 4, 5, 6, 6, 7]);
  const late = play(2.01, 60, () => 0.2);
  const from = late.sources[0]!.at;
  late.playing.retime({ ...late.plan, chords });
  late.go(3.9);
  const after = late.sources.filter((s) => s.note && s.stopped === null).map((s) => s.at - from);
  expect(after.map((at) => Math.round(at * 4))).toEqual(after.map((_, i) => i));
});

test('a round is what was heard from the first note to the end of the last, once, whatever the tempo becomes meanwhile', () => {
  // Sixteen sixteenths at 60 are four seconds.
  const whole = play(3.9, 60, () => 0.05);
  expect(whole.playing.heard().rounds).toBe(0);
  // The last note sounds already: with another tempo its round still ends once.
  whole.playing.retime({ ...whole.plan, schedule: scheduleOf(whole.plan.run, at(120)) });
  whole.go(4.3);
  expect(whole.playing.heard().rounds).toBe(1);
  // Taken back a moment before, the last note ends its round when it is heard at last.
  const back = play(3.7, 60, () => 0.05);
  back.playing.retime({ ...back.plan, schedule: scheduleOf(back.plan.run, at(60)) });
  back.go(8.3);
  expect(back.playing.heard().rounds).toBe(2);
  // What began in its middle is none, the one after it is.
  const part = play(4, 60, () => 0.05, 16, 4, 6);
  expect(part.playing.heard().rounds).toBe(0);
  part.go(7.3);
  expect(part.playing.heard().rounds).toBe(1);
});

test('nothing else is heard before it was told to be, and then something is', () => {
  const { playing, ctx, go } = play(0.5, 90, () => 0.001, 16, 4, 0, 1);
  const seen = new Set<number | null>();
  for (let i = 0; i < 40; i++) {
    const before = playing.heard();
    const until = playing.untilNext();
    expect(until).toBeLessThan(1);
    const at = ctx.currentTime;
    go(at + until - 0.002);
    expect(playing.heard()).toEqual(before);
    go(at + until + 0.001);
    expect(playing.heard()).not.toEqual(before);
    seen.add(playing.heard().step);
  }
  expect(seen.size).toBeGreaterThan(16);
});

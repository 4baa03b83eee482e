import { median } from '../src/arithmetic.ts';
import {
  articulate,
  earOf,
  type Faults,
  fingers,
  type HeardRound,
  inTime,
  type Neck,
  type NotesPerBeat,
  type NoteVerdict,
  type PlayedNote,
  type Run,
  scheduleOf,
  standInPlays,
  standInSounds,
  type Touch,
  type VoiceName,
  verdictsOf,
} from './core.ts';
import { count, HAND, key, neckWith, positions } from './helpers.ts';

export const RATE = 48_000;
/** Samples that come at once, as in the page. */
const BLOCK = 512;

/** What the stand-in plays on. */
export const GUITARS: readonly {
  readonly name: string;
  readonly neck: Neck;
  readonly voice: VoiceName;
  readonly plain: number;
}[] = [
  { name: 'guitar', neck: neckWith('E2 A2 D3 G3 B3 E4'), voice: 'guitar', plain: 3 },
  { name: 'seven-string', neck: neckWith('B1 E2 A2 D3 G3 B3 E4'), voice: 'guitar', plain: 3 },
  { name: 'bass', neck: neckWith('E1 A1 D2 G2'), voice: 'bass', plain: 0 },
];
export type Guitar = (typeof GUITARS)[number];

/** A position played up, with three notes on a string. */
export function runOn({ neck }: Guitar, at: number, perBeat: NotesPerBeat, touch: Touch = 'picked'): Run {
  const on = positions(key('A', 'natural-minor'), count(3), neck);
  const { steps } = fingers(neck, on[at % on.length]!.spots, HAND);
  return inTime(articulate(steps, touch, touch === 'picked' ? new Set() : undefined), perBeat);
}

export interface Case {
  readonly guitar: Guitar;
  readonly run: Run;
  readonly tempo: number;
  readonly faults: Faults;
  readonly seed: number;
}
export interface Listened {
  readonly samples: Float32Array;
  readonly played: readonly PlayedNote[];
  readonly heard: HeardRound;
  readonly verdicts: readonly NoteVerdict[];
  /** When something was said of each note first, in seconds. */
  readonly told: ReadonlyMap<number, number>;
  readonly asked: readonly { readonly at: number; readonly midi: number; readonly length: number }[];
}
/** What is heard of what the stand-in plays; something else may sound along. */
export function listened(
  { guitar, run, tempo, faults, seed }: Case,
  along?: { readonly own: readonly number[]; readonly sound: (samples: Float32Array) => void },
): Listened {
  const schedule = scheduleOf(run, { tempo, swing: 50, beatsPerBar: 4, countIn: 1, endsOn: 3840 });
  const played = standInPlays(run, schedule.notes, guitar, faults, seed);
  const samples = standInSounds(
    played,
    faults,
    schedule.end * faults.tempo + 1 + faults.delay / 1000,
    RATE,
    seed,
  );
  along?.sound(samples);
  const asked = schedule.notes.map(({ step, at, until }) => ({
    at,
    length: until - at,
    midi: run[step]!.spot.midi,
    arrive: run[step]!.arrive,
    bend: run[step]!.bend,
  }));
  const pitches = asked.map((a) => a.midi);
  const ear = earOf(RATE, { low: Math.min(...pitches) - 13, high: Math.max(...pitches) + 13 });
  ear.ask({ id: 1, notes: asked, to: 'click', ...(along && { own: along.own }) });
  let heard: HeardRound | undefined;
  const told = new Map<number, number>();
  for (let i = 0; i < samples.length; i += BLOCK) {
    const now = ear.hear(samples.subarray(i, i + BLOCK)).at(-1);
    if (!now) continue;
    heard = now;
    verdictsOf(asked, now, 'click', null).forEach((it, at) => {
      if (it && !told.has(at)) told.set(at, (i + BLOCK) / RATE);
    });
  }
  heard = ear.end().at(-1) ?? heard!;
  return {
    samples,
    played,
    heard,
    verdicts: verdictsOf(asked, heard, 'click', null).map((v) => v!),
    asked,
    told,
  };
}

export interface Figures {
  sounding: number;
  found: number;
  pitch: number;
  heard: number;
  slurred: number;
  slurredFound: number;
  /** How far beginnings and verdicts of time are off, in ms, a constant taken away. */
  readonly off: number[];
  readonly told: number[];
  readonly cents: number[];
  verdicts: number;
  right: number;
}
export const noFigures = (): Figures => ({
  sounding: 0,
  found: 0,
  pitch: 0,
  heard: 0,
  slurred: 0,
  slurredFound: 0,
  off: [],
  told: [],
  cents: [],
  verdicts: 0,
  right: 0,
});

/** The value below which so much of some numbers lies. */
export const quantile = (of: readonly number[], part: number): number =>
  [...of].sort((a, b) => a - b)[Math.max(0, Math.ceil(part * of.length) - 1)] ?? 0;

/** What was heard against what was played: a note is found within 50 ms, each once. */
export function tally(
  into: Figures,
  { played, heard: { heard }, verdicts, asked }: Listened,
  detuned: number,
): void {
  const free = new Set(heard);
  const offs: number[] = [];
  for (const note of played) {
    const near = [...free]
      .filter((h) => Math.abs(h.at - note.at) < 0.05)
      .sort((a, b) => Math.abs(a.at - note.at) - Math.abs(b.at - note.at))[0];
    const slurred = ['hammer', 'pull', 'slide'].includes(note.sounds.arrive);
    into.sounding++;
    if (slurred) into.slurred++;
    if (!near) continue;
    free.delete(near);
    into.found++;
    if (slurred) into.slurredFound++;
    offs.push((near.at - note.at) * 1000);
    if (near.midi === note.midi) {
      into.pitch++;
      if (!note.held.bend && !note.held.vibrato) into.cents.push(Math.abs(near.cents - detuned));
    }
  }
  into.heard += heard.length;
  const constant = median(offs);
  into.off.push(...offs.map((o) => Math.abs(o - constant)));
  const lates = new Map(
    played.flatMap((p) => (p.step === null ? [] : [[p.step, (p.at - asked[p.step]!.at) * 1000]])),
  );
  const kinds = new Map(
    played.flatMap((p) => (p.step === null ? [] : [[p.step, p.kind === 'wrong' ? 'wrong' : 'right']])),
  );
  const told = verdicts.flatMap((v, i) =>
    v.is === 'missed' || !lates.has(i) ? [] : [v.off - lates.get(i)!],
  );
  const shift = median(told);
  into.told.push(...told.map((o) => Math.abs(o - shift)));
  into.verdicts += verdicts.length;
  into.right += verdicts.filter((v, i) => v.is === (kinds.get(i) ?? 'missed')).length;
}

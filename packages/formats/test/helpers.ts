import { spawnSync } from 'node:child_process';
import {
  CATALOGUE,
  DEFAULT_INSTRUMENT,
  degreeIndex,
  type Key,
  neckOf,
  note,
  type Result,
  ROOTS,
  seeded,
  TUNINGS,
} from '@crow-ladder/core';
import { USUAL_VIBRATO, type Bend, type Step, TAP } from '@crow-ladder/core/run';
import fc from 'fast-check';
import { type FileNote, type FileRead, type Music } from '../src/index.ts';

/** Beats, or two of them, cut into parts that can be written. */
const RHYTHMS: readonly (readonly number[])[] = [
  [960],
  [480, 480],
  [240, 240, 480],
  [720, 240],
  [120, 120, 240, 480],
  [320, 320, 320],
  [640, 320],
  [160, 160, 160, 160, 320],
  [192, 192, 192, 384],
  [137, 137, 137, 138, 411],
  [1920],
  [1440, 480],
  [480, 960, 480],
  [3840],
];
const BENDS: readonly Bend[] = [0.5, 1, 1.5, 2, 3].flatMap((by) =>
  (['once', 'slowly'] as const).flatMap((how) => [false, true].map((released) => ({ by, how, released }))),
);

/** Music by chance: four to nine strings, any key and metre, rests, tuplets, ties over bar lines, slurs, slides, taps, bends, accents. */
export function musicOf(seed: number): Music {
  const random = seeded(seed);
  const one = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)]!;
  const tunings = TUNINGS.filter(({ tuning }) => tuning.length >= 4 && tuning.length <= 9);
  const named = one(tunings);
  const capo = random() < 0.15 ? 2 : 0;
  const neck = neckOf({ ...DEFAULT_INSTRUMENT, tuning: named.tuning, frets: 22, capo });
  const key: Key = { root: note(one(ROOTS.map((names) => names.at(-1)!))), scale: one(CATALOGUE) };
  const beats = one([2, 3, 4, 4, 5, 6, 7]);
  const run: Step[] = [];
  let at = 0;
  let hand = 1 + Math.floor(random() * 12);
  const many = 4 + Math.floor(random() * 24);
  while (run.length < many) {
    for (const length of one(RHYTHMS)) {
      const start = at;
      at += length;
      if (random() < 0.12) continue;
      const last = run.at(-1);
      const follows = last && last.start + last.length === start && last.finger !== TAP && !last.bend;
      const way = random();
      const open = random() < 0.1;
      const tap = !open && way > 0.95;
      const joins = follows && !open && way < 0.4;
      const string = joins ? last.spot.string : 1 + Math.floor(random() * neck.open.length);
      hand = Math.max(1, Math.min(17, hand + Math.floor(random() * 5) - 2));
      let fret = open ? 0 : tap ? Math.min(neck.frets, hand + 5) : hand + Math.floor(random() * 4);
      if (joins && fret === last.spot.fret) fret += fret < neck.frets ? 1 : -1;
      fret = Math.min(neck.frets, fret);
      if (joins && fret === last.spot.fret) fret--;
      const arrive = tap
        ? 'tap'
        : !joins
          ? 'pick'
          : way < 0.15
            ? 'slide'
            : fret > last.spot.fret
              ? 'hammer'
              : 'pull';
      const midi = neck.open[string - 1]! + fret;
      const pressed = !open && !tap;
      run.push({
        spot: { string, fret, midi, degree: degreeIndex(key, midi) },
        finger: open ? 0 : tap ? TAP : 1 + Math.floor(random() * 4),
        hand,
        arrive,
        start,
        length,
        ...(pressed && random() < 0.12 && { bend: one(BENDS) }),
        ...(pressed && random() < 0.08 && { vibrato: USUAL_VIBRATO }),
        ...(random() < 0.1 && { accent: true as const }),
      });
    }
  }
  return {
    title: one(['Ferry ramp', 'Night & fog <lee>', 'E♭ "wake"', '7 knots']),
    run,
    ticks: at,
    neck,
    capo,
    key,
    beats,
    tempo: one([60, 92, 100, 132]),
    clef: named.group === 'basses' ? 'bass' : 'treble',
  };
}
export const anyMusic = fc.integer({ min: 0, max: 2 ** 31 }).map(musicOf);

export function right<T>(result: Result<T>): T {
  if (!result.ok) throw new Error(`${result.error.code}: ${result.error.message}`);
  return result.value;
}
/** All notes of a file, in order. */
export const notesIn = ({ parts }: FileRead): readonly FileNote[] =>
  parts.flatMap(({ voices }) => voices.flatMap(({ notes }) => notes)).sort((a, b) => a.start - b.start);

const JOINED = { pick: undefined, hammer: 'slur', pull: 'slur', slide: 'slide', tap: 'tap' } as const;
/** What a note of a run is, as a format tells it. */
export const told = (step: Step): Omit<FileNote, 'where'> => ({
  midi: step.spot.midi,
  start: step.start,
  length: step.length,
  string: step.spot.string,
  fret: step.spot.fret,
  finger: step.finger >= 1 && step.finger <= 4 ? step.finger : undefined,
  joined: JOINED[step.arrive],
  bend: step.bend,
  vibrato: step.vibrato,
  accent: step.accent,
});

/** What was read as the music that it was written from: places of a note that the file does not tell are those of the same note there. */
export function again(music: Music, read: FileRead): Music {
  const notes = notesIn(read);
  const run = notes.map((it, i): Step => {
    const was = music.run[i]!;
    const last = i > 0 ? notes[i - 1] : undefined;
    const string = it.string ?? was.spot.string;
    const fret = it.fret ?? it.midi! - music.neck.open[string - 1]!;
    const up = last && it.midi! > last.midi!;
    return {
      spot: { string, fret, midi: it.midi!, degree: degreeIndex(music.key, it.midi!) },
      finger: it.joined === 'tap' ? TAP : (it.finger ?? (fret === 0 ? 0 : was.finger)),
      hand: was.hand,
      arrive: it.joined === 'slur' ? (up ? 'hammer' : 'pull') : (it.joined ?? 'pick'),
      start: it.start,
      length: it.length,
      ...(it.bend && { bend: it.bend }),
      ...(it.vibrato && { vibrato: it.vibrato }),
      ...(it.accent && { accent: it.accent }),
    };
  });
  return { ...music, run, title: read.title ?? '', tempo: read.tempo ?? music.tempo };
}

/** What an outside program says to some input; it is installed as the tests are. */
export function asked(program: string, args: readonly string[], input?: Uint8Array): string {
  const { status, stdout, stderr, error } = spawnSync(program, args, {
    ...(input && { input }),
    maxBuffer: 64 * 1024 * 1024,
  });
  if (error)
    throw new Error(
      `${program} is not installed: on Debian, sudo apt-get install midicsv abcmidi libxml2-utils`,
    );
  if (status !== 0) throw new Error(`${program} ended with ${status}: ${stderr.toString().slice(0, 500)}`);
  return stdout.toString('latin1');
}

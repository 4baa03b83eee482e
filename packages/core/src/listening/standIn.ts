import { bentAt, type NoteEvent, type Run, type Step } from '../run/index.ts';
import { seeded } from '../seeded.ts';
import {
  LOUD,
  pluck,
  type Plucked,
  slidFrom,
  soundOf,
  STRING_TIMES,
  type Strung,
  TAKES,
} from '../sound/index.ts';

/** What a stand-in guitarist does otherwise than asked. */
export interface Faults {
  /** So many notes of a round are of another pitch, left out, or struck twice. */
  readonly wrong: number;
  readonly missed: number;
  readonly doubled: number;
  /** How far notes lie around their time, in ms (standard deviation). */
  readonly jitter: number;
  /** Which finger is late, 1 to 4, or 0 for none, and by how many ms. */
  readonly lateFinger: number;
  readonly late: number;
  /** Seconds for each second of the click: 0.98 rushes. */
  readonly tempo: number;
  /** Everything comes so much later, in ms: what a sound card adds. */
  readonly delay: number;
  /** How much softer the weaker notes are, in dB, and how long notes ring on into the next ones, in ms. */
  readonly uneven: number;
  readonly ringing: number;
  /** How far bends fall short of where they should arrive, in cents. */
  readonly short: number;
  /** How far the guitar is out of tune, in cents. */
  readonly detuned: number;
  /** How loud hiss and hum are, in dB below full scale; null is none. */
  readonly noise: number | null;
  readonly hum: number | null;
}
/** Within which bounds each can be set. */
export const FAULT_LIMITS = {
  wrong: [0, 8],
  missed: [0, 8],
  doubled: [0, 8],
  jitter: [0, 60],
  late: [0, 200],
  detuned: [-50, 50],
  ringing: [0, 500],
  short: [0, 50],
  uneven: [0, 12],
} as const satisfies Partial<Record<keyof Faults, readonly [number, number]>>;
/** One that does as asked. */
export const FAULTLESS: Faults = {
  wrong: 0,
  missed: 0,
  doubled: 0,
  jitter: 0,
  lateFinger: 0,
  late: 0,
  tempo: 1,
  delay: 0,
  uneven: 0,
  ringing: 0,
  short: 0,
  detuned: 0,
  noise: null,
  hum: null,
};

/** A note as it sounds. */
export interface SoundingNote {
  /** When it sounds, in seconds from the beginning of the schedule, and until when. */
  readonly at: number;
  readonly until: number;
  readonly sounds: Plucked;
  /** From how many frets away it is slid to, negative from above; 0 where it is not. */
  readonly slide: number;
  readonly held: Pick<Step, 'bend' | 'vibrato'>;
  /** How much softer than the others, in dB. */
  readonly softer: number;
}
/** A note as the stand-in plays it. */
export interface PlayedNote extends SoundingNote {
  /** Which step of the run it is; null for a note that nobody asked for. */
  readonly step: number | null;
  readonly kind: 'right' | 'wrong' | 'doubled';
  readonly midi: number;
}
/**
 * A note by itself, from one second to another, held as usual.
 *
 * @example plainNote({ midi: 45, voice: 'guitar', fret: 5, wound: true, arrive: 'pick', take: 0 }, 0, 1).slide // 0
 */
export const plainNote = (sounds: Plucked, at: number, until: number): SoundingNote => ({
  at,
  until,
  sounds,
  slide: 0,
  held: {},
  softer: 0,
});

/** A wrong note is a fret or two away, a doubled one comes this part of a note later. */
const WRONG = [-2, -1, 1, 2];
const DOUBLED = 0.45;

/**
 * What a stand-in guitarist plays of a run, when its notes are asked for: the notes that sound, in order of time. The same seed plays the
 * same. Nothing is wrong, missed or doubled next to another such note, and neither the first nor the last.
 *
 * @example standInPlays(run, scheduleOf(run, { tempo: 60, swing: 50, beatsPerBar: 4, countIn: 0, endsOn: 960 }).notes, { voice: 'guitar', plain: 3 }, FAULTLESS, 1)[1].at // 0.5
 */
export function standInPlays(
  run: Run,
  notes: readonly NoteEvent[],
  strung: Strung,
  faults: Faults,
  seed: number,
): readonly PlayedNote[] {
  const chance = seeded(seed);
  // Twelve chances make a bell.
  const around = (): number => Array.from({ length: 12 }, chance).reduce((sum, x) => sum + x, -6);
  const kinds = new Map<number, 'wrong' | 'missed' | 'doubled'>();
  const free = (i: number): boolean => !kinds.has(i - 1) && !kinds.has(i) && !kinds.has(i + 1);
  for (const kind of ['wrong', 'missed', 'doubled'] as const)
    for (let left = faults[kind]; left > 0; left--) {
      const open = run.flatMap((_, i) => (i > 0 && i < run.length - 1 && free(i) ? [i] : []));
      if (open.length) kinds.set(open[Math.floor(chance() * open.length)]!, kind);
    }
  const played: PlayedNote[] = [];
  notes.forEach(({ step: i, at, until }) => {
    const step = run[i]!;
    const kind = kinds.get(i);
    const late = step.finger === faults.lateFinger ? faults.late : 0;
    const shift = (faults.delay + late + faults.jitter * around()) / 1000;
    const begins = at * faults.tempo + shift;
    const softer = i % 2 ? faults.uneven : 0;
    if (kind === 'missed') return;
    const away = kind === 'wrong' ? WRONG[Math.floor(chance() * WRONG.length)]! : 0;
    const fret = Math.max(0, step.spot.fret + away);
    const midi = step.spot.midi + fret - step.spot.fret;
    // A note that is reached from one that did not sound is picked.
    const arrive = kind || kinds.get(i - 1) === 'missed' ? 'pick' : step.arrive;
    const note: PlayedNote = {
      step: i,
      kind: midi === step.spot.midi ? 'right' : 'wrong',
      at: begins,
      until: until * faults.tempo + shift + faults.ringing / 1000,
      midi,
      sounds: soundOf(strung, { string: step.spot.string, fret, midi }, arrive, i % TAKES),
      slide: arrive === 'slide' ? slidFrom(run, i) : 0,
      held: kind
        ? {}
        : {
            ...(step.bend && { bend: { ...step.bend, by: step.bend.by - faults.short / 100 } }),
            ...(step.vibrato && { vibrato: step.vibrato }),
          },
      softer,
    };
    const again = begins + DOUBLED * (until - at);
    if (kind !== 'doubled') played.push(note);
    else
      played.push(
        { ...note, until: again },
        {
          ...note,
          step: null,
          kind: 'doubled',
          at: again,
          sounds: { ...note.sounds, arrive: 'pick', take: (i + 1) % TAKES },
        },
      );
  });
  return played.sort((a, b) => a.at - b.at);
}

const HUM_HZ = 50;
/** A slurred note is there after so long, and damped with this time constant, in seconds. */
const { slide: SLIDE, slur: SLUR, damp: DAMP } = STRING_TIMES;

/**
 * What a stand-in sounds like at a rate in Hz: samples from 0 to `seconds`, about −1 to 1.
 *
 * @example standInSounds([], FAULTLESS, 1, 1000, 1).length // 1000
 */
export function standInSounds(
  played: readonly SoundingNote[],
  { detuned, noise, hum }: Pick<Faults, 'detuned' | 'noise' | 'hum'>,
  seconds: number,
  rate: number,
  seed: number,
): Float32Array {
  const out = new Float32Array(Math.ceil(seconds * rate));
  const rendered = new Map<string, Float32Array>();
  for (const note of played) {
    const { at, until, slide, held, softer, sounds } = note;
    const begins = slide ? at - SLIDE : at;
    const lasts = until - begins + 6 * DAMP;
    const id = `${Object.values(sounds).join(' ')} ${Math.ceil(2 * lasts)}`;
    // A bent string is read faster than it was rendered.
    const string = rendered.get(id) ?? pluck(sounds, Math.ceil(2 * lasts) * 0.75, rate);
    rendered.set(id, string);
    const loud = (LOUD[sounds.arrive] * 10 ** (-softer / 20)) / 2;
    const slurred = sounds.arrive !== 'pick' && sounds.arrive !== 'tap';
    let place = 0;
    for (let i = Math.max(0, Math.ceil(begins * rate)); i < out.length; i++) {
      const t = i / rate;
      if (t > begins + lasts) break;
      const whole = Math.floor(place);
      const part = place - whole;
      const sample = (string[whole] ?? 0) * (1 - part) + (string[whole + 1] ?? 0) * part;
      const rise = slurred ? Math.min(1, (t - begins) / SLUR) : 1;
      const fall = t > until ? Math.exp((until - t) / DAMP) : 1;
      out[i]! += loud * rise * fall * sample;
      const left = t < at ? Math.ceil(((at - t) / SLIDE) * Math.abs(slide)) : 0;
      const higher = t < at ? -Math.sign(slide) * left : t < until ? bentAt(held, t - at, until - at) : 0;
      place += 2 ** ((higher + detuned / 100) / 12);
    }
  }
  const chance = seeded(seed + 7);
  const hiss = noise === null ? 0 : 10 ** (noise / 20) * Math.SQRT2 * Math.sqrt(1.5);
  const hums = hum === null ? 0 : 10 ** (hum / 20);
  if (hiss || hums)
    for (let i = 0; i < out.length; i++) {
      const w = (2 * Math.PI * HUM_HZ * i) / rate;
      out[i]! += hiss * (chance() + chance() - 1) + hums * (Math.sin(w) + Math.sin(3 * w) / 2);
    }
  return out;
}

import { gcd } from '../arithmetic.ts';
import { QUARTER, type Run } from './run.ts';

/** Quarter notes a minute. */
export const TEMPO = { least: 30, most: 300, step: 5 } as const;
/** How far into a beat its second eighth falls, in per cent: 50 is straight. */
export const SWING = { least: 50, most: 75 } as const;

const commonMultiple = (a: number, b: number): number => (a * b) / gcd(a, b);

/**
 * After how many notes the first note of a group falls on a beat again, and on the first beat of a bar; null where it never leaves the
 * beat, as the notes of a group or the notes a beat divide the other.
 *
 * @example accentHome(3, 4, 4) // {"onBeat":12,"onBar":48}
 */
export function accentHome(
  group: number,
  perBeat: number,
  beats: number,
): { readonly onBeat: number; readonly onBar: number } | null {
  if (group % perBeat === 0 || perBeat % group === 0) return null;
  return { onBeat: commonMultiple(group, perBeat), onBar: commonMultiple(group, perBeat * beats) };
}

export interface Playing {
  /** Quarter notes a minute. */
  readonly tempo: number;
  /** In per cent; only eighths swing, so it is 50 for all else. */
  readonly swing: number;
  readonly beatsPerBar: number;
  /** Bars that are clicked before the first note. */
  readonly countIn: number;
  /** It ends, and begins again, at a multiple of so many ticks: a beat, a bar, or bars that are left free as well. */
  readonly endsOn: number;
}

/** A note to be heard: which step of the run it is, and from when to when, in seconds from the beginning. */
export interface NoteEvent {
  readonly step: number;
  readonly at: number;
  readonly until: number;
}
/** A click of the metronome, in seconds from the beginning. */
export interface ClickEvent {
  readonly at: number;
  readonly accent: boolean;
}
export interface Schedule {
  readonly notes: readonly NoteEvent[];
  readonly clicks: readonly ClickEvent[];
  /** Where the first note of the run stands, and where a loop begins again. */
  readonly from: number;
  readonly end: number;
}

/** A tick of a beat as it swings: its first half is stretched, its second one pressed. */
function swung(tick: number, percent: number): number {
  const beat = Math.floor(tick / QUARTER) * QUARTER;
  const within = (tick - beat) / QUARTER;
  const turn = percent / 100;
  return beat + QUARTER * (within <= 0.5 ? within * 2 * turn : turn + (within - 0.5) * 2 * (1 - turn));
}

/**
 * Some notes of a run by themselves, from the `from`th to the `to`th, from 0: the first of them stands at tick 0.
 *
 * @example partOf(run, 0, 4).length // 5
 */
export function partOf(run: Run, from: number, to: number): Run {
  const first = run[from]?.start ?? 0;
  return run.slice(from, to + 1).map((step) => ({ ...step, start: step.start - first }));
}

/**
 * When everything of a run sounds: its notes, and the clicks of a count-in and of every beat to the end of the last bar.
 *
 * @example scheduleOf(run, { tempo: 60, swing: 50, beatsPerBar: 4, countIn: 0, endsOn: 960 }).notes[1].at // 0.5
 */
export function scheduleOf(run: Run, { tempo, swing, beatsPerBar, countIn, endsOn }: Playing): Schedule {
  const second = 60 / tempo / QUARTER;
  const bar = QUARTER * beatsPerBar;
  const from = countIn * bar;
  const last = run.at(-1);
  const ticks = last ? Math.ceil((last.start + last.length) / endsOn) * endsOn : 0;
  const at = (tick: number): number => (from + swung(tick, swing)) * second;
  return {
    notes: run.map(({ start, length }, step) => ({ step, at: at(start), until: at(start + length) })),
    clicks: Array.from({ length: (from + ticks) / QUARTER }, (_, beat) => ({
      at: beat * QUARTER * second,
      accent: beat % beatsPerBar === 0,
    })),
    from: from * second,
    end: (from + ticks) * second,
  };
}

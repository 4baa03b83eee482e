import { LIMITS } from '@crow-ladder/core';
import { type PlanEnd, type Way } from '@crow-ladder/core/plan';
import { refFrom, refWord } from './refWord.ts';

/** What a climb is planned for. */
export interface PlanAsked {
  readonly from: PlanEnd;
  readonly to: PlanEnd;
  /** Whether it comes back as well. */
  readonly back: boolean;
  /** Frets under the hand; 0 is any. */
  readonly reach: number;
  /** What one place of the hand spans at most, in mm; 0 is any. */
  readonly mm: number;
  /** No open strings. */
  readonly closed?: true | undefined;
  readonly strings: readonly [number, number] | null;
  readonly least: number;
  /** 0 is any number. */
  readonly most: number;
  readonly ways: readonly Way[];
  /** −1 is any number. */
  readonly shifts: number;
  /** Quarter notes a minute, played in eighths. */
  readonly tempo: number;
}

/** The kinds of shift, by what they are called where they are allowed and where they are made. */
export const WAYS: readonly { readonly id: Way; readonly name: string }[] = [
  { id: 'change', name: 'at a string change' },
  { id: 'slide', name: 'by a slide' },
  { id: 'close', name: 'closing up on a string' },
  { id: 'open', name: 'while a string rings open' },
];

export const PLAN_AT_FIRST: PlanAsked = {
  from: { at: 'root' },
  to: { at: 'octaves', octaves: 2 },
  back: false,
  reach: 0,
  mm: 0,
  strings: null,
  least: 1,
  most: 0,
  ways: WAYS.map((w) => w.id),
  shifts: -1,
  tempo: 100,
};

/** Octaves that a climb can be asked to go, up or down. */
const OCTAVES = 4;

/** An end of a climb in a word: "root", "o2", "s3f5", "p0-5". */
export function endWord(end: PlanEnd): string {
  switch (end.at) {
    case 'octaves':
      return `o${end.octaves}`;
    case 'place':
      return `s${end.place.string}f${end.place.fret}`;
    case 'position':
      return `p${refWord(end.ref).replaceAll('.', '-')}`;
    default:
      return end.at;
  }
}
/** What such a word says; null where it says nothing. */
export function endFrom(word: string): PlanEnd | null {
  if (word === 'root' || word === 'lowest' || word === 'highest') return { at: word };
  const octaves = /^o(-?\d)$/.exec(word);
  if (octaves && Number(octaves[1]) && Math.abs(Number(octaves[1])) <= OCTAVES)
    return { at: 'octaves', octaves: Number(octaves[1]) };
  const place = /^s(\d{1,2})f(\d{1,2})$/.exec(word);
  if (place) return { at: 'place', place: { string: Number(place[1]), fret: Number(place[2]) } };
  const position = /^p(\d{1,2}(-\d{1,2}){1,2})$/.exec(word);
  return position ? { at: 'position', ref: refFrom(position[1]!.replaceAll('-', '.')) as never } : null;
}

export const planWord = (p: PlanAsked): string =>
  [
    endWord(p.from),
    endWord(p.to),
    p.back ? 'both' : 'one',
    p.reach,
    p.mm,
    p.strings?.join('-') ?? 'all',
    p.least,
    p.most,
    p.ways.join('-') || 'none',
    p.shifts,
    p.tempo,
    ...(p.closed ? ['closed'] : []),
  ].join('.');

/** Least and most of the numbers of a plan. */
export const PLAN_BOUNDS = {
  reach: [0, 4],
  mm: [0, 200],
  least: [1, 12],
  most: [0, 12],
  shifts: [-1, 99],
  tempo: [30, 300],
} as const;
const within = (n: number, [low, high]: readonly [number, number]): boolean =>
  Number.isInteger(n) && n >= low && n <= high;

/** What such a word says; what is asked at first where it cannot be read. */
export function planFrom(word: string): PlanAsked {
  const [from = '', to = '', back, reach, mm, strings = 'all', least, most, ways, shifts, tempo, closed] =
    word.split('.');
  const ends = [endFrom(from), endFrom(to)] as const;
  const on = strings === 'all' ? null : strings.split('-').map(Number);
  const read: PlanAsked = {
    from: ends[0] ?? PLAN_AT_FIRST.from,
    to: ends[1] ?? PLAN_AT_FIRST.to,
    back: back === 'both',
    reach: Number(reach),
    mm: Number(mm),
    ...(closed === 'closed' && { closed: true as const }),
    strings: on && [Math.min(...on), Math.max(...on)],
    least: Number(least),
    most: Number(most),
    ways: WAYS.map((w) => w.id).filter((id) => ways?.split('-').includes(id)),
    shifts: Number(shifts),
    tempo: Number(tempo),
  };
  const whole =
    ends.every((e) => e !== null) &&
    Object.entries(PLAN_BOUNDS).every(([name, bounds]) =>
      within(read[name as keyof typeof PLAN_BOUNDS], bounds),
    ) &&
    (on?.every((s) => within(s, [1, LIMITS.strings[1]])) ?? true);
  return whole ? read : PLAN_AT_FIRST;
}

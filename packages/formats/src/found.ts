import { refuse, type Refusal } from '@crow-ladder/core';
import { type Bend, QUARTER, type Vibrato } from '@crow-ladder/core/run';
import { FILE_LIMITS } from './named.ts';

/** Where in a file something stands; what is not known is left out. All count from 1 but bytes. */
export interface Where {
  readonly line?: number | undefined;
  readonly column?: number | undefined;
  readonly bar?: number | undefined;
  readonly track?: number | undefined;
  /** From 0. */
  readonly byte?: number | undefined;
}
/**
 * A place in a file as a sentence begins with it.
 *
 * @example whereSaid({ line: 3, column: 7 }) // "Line 3, column 7"
 */
export function whereSaid({ line, column, bar, track, byte }: Where): string {
  const said = [
    line === undefined ? '' : `line ${line}`,
    column === undefined ? '' : `column ${column}`,
    track === undefined ? '' : `track ${track}`,
    bar === undefined ? '' : `bar ${bar}`,
    byte === undefined ? '' : `byte ${byte}`,
  ]
    .filter(Boolean)
    .join(', ');
  return said.charAt(0).toUpperCase() + said.slice(1);
}

/** Something of a file that was not understood, or was taken otherwise than it may have been meant. */
export interface Remark {
  readonly where: Where;
  /** A clause that goes on after the place: "a muted stroke is kept as a rest". */
  readonly said: string;
}
/**
 * A remark as a sentence.
 *
 * @example remarkSaid({ where: { bar: 2 }, said: 'grace notes are left out' }) // "Bar 2: grace notes are left out."
 */
export const remarkSaid = ({ where, said }: Remark): string => {
  const at = whereSaid(where);
  return at ? `${at}: ${said}.` : `${said.charAt(0).toUpperCase()}${said.slice(1)}.`;
};

/** A file that cannot be read, with where it fails. */
export const refuseAt = (
  code: string,
  where: Where,
  said: string,
): { readonly ok: false; readonly error: Refusal } => refuse(code, remarkSaid({ where, said }));

/** A note of a file. */
export interface FileNote {
  /** What sounds, a MIDI number; null is a muted stroke. */
  readonly midi: number | null;
  /** In ticks from the beginning of the file. */
  readonly start: number;
  readonly length: number;
  readonly where: Where;
  /** From 1, the highest, where the file says so. */
  readonly string?: number | undefined;
  /** From the capo. */
  readonly fret?: number | undefined;
  /** 1 to 4. */
  readonly finger?: number | undefined;
  /** How it is reached from the note before it, where it is not picked. */
  readonly joined?: 'slur' | 'slide' | 'tap' | undefined;
  readonly bend?: Bend | undefined;
  readonly vibrato?: Vibrato | undefined;
  readonly accent?: true | undefined;
}
/** What sounds together of one part, in the order of its beginnings, higher notes first. */
export interface FileVoice {
  readonly name: string;
  readonly notes: readonly FileNote[];
}
/** What is told of a piece of music as a whole. */
export interface FilePiece {
  readonly title: string | null;
  /** Quarter notes a minute at its beginning. */
  readonly tempo: number | null;
  /** Sharps of its first signature, flats below 0; whether it is told to be minor. */
  readonly key: { readonly fifths: number; readonly minor: boolean } | null;
  /** Its first metre. */
  readonly metre: { readonly beats: number; readonly unit: number } | null;
  readonly bars: readonly FileBar[];
}
/** An instrument of a file. */
export interface FilePart {
  readonly name: string;
  /** The piece that it plays, where a file holds several: else the file is one. */
  readonly piece?: FilePiece | undefined;
  /** Its open strings in MIDI numbers, string 1 first, where the file tells them. */
  readonly open: readonly number[] | null;
  readonly voices: readonly FileVoice[];
}
/** A bar of a file: where it begins, and its length, in ticks. */
export interface FileBar {
  readonly start: number;
  readonly length: number;
}
/** What was found in a file. */
export interface FileRead extends FilePiece {
  /** Whether it tells when its notes sound, or only their order. */
  readonly timed: boolean;
  readonly parts: readonly FilePart[];
  readonly remarks: readonly Remark[];
}

/**
 * Notes in the order of their beginnings, higher ones first.
 *
 * @example inOrder([{ start: 960, midi: 60 }, { start: 0, midi: 62 }])[0].midi // 62
 */
export const inOrder = <N extends Pick<FileNote, 'start' | 'midi'>>(notes: readonly N[]): readonly N[] =>
  [...notes].sort((a, b) => a.start - b.start || (b.midi ?? 0) - (a.midi ?? 0));

/**
 * Ticks of a number of quarter notes.
 *
 * @example ticksOfQuarters(1 / 3) // 320
 */
export const ticksOfQuarters = (quarters: number): number => Math.round(quarters * QUARTER);

/**
 * Which bar a tick lies in, from 1.
 *
 * @example barAt([{ start: 0, length: 3840 }, { start: 3840, length: 3840 }], 3840) // 2
 */
export const barAt = (bars: readonly FileBar[], tick: number): number =>
  lastFrom(bars.length, (i) => bars[i]!.start, tick) + 1;
/**
 * The last of some places in order, from 0, that begins at a point or before it; the first where none does.
 *
 * @example lastFrom(3, (i) => 10 * i, 15) // 1
 */
export function lastFrom(many: number, begins: (i: number) => number, point: number): number {
  let [low, high] = [0, many - 1];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (begins(middle) <= point) low = middle;
    else high = middle - 1;
  }
  return low;
}

/**
 * The refusal of a file at the first note that is one too many.
 *
 * @example notesMany(20001, { bar: 3 }).error.code // "file.notes"
 */
export const notesMany = (many: number, where: Where): ReturnType<typeof refuseAt> =>
  refuseAt(
    'file.notes',
    where,
    `this is note ${many}, and a file may have at most ${FILE_LIMITS.notes}: save a part of it`,
  );

import { list, ok, plural, refuse, type Result } from '@crow-ladder/core';
import { PHRASE_LIMITS, type Tune, type TuneNote, UNITS } from '@crow-ladder/core/phrases';
import { isOn, QUARTER } from '@crow-ladder/core/run';
import {
  barAt,
  type FileNote,
  type FilePart,
  type FilePiece,
  type FileRead,
  remarkSaid,
  type Remark,
} from './found.ts';
import { type ChordWay } from './named.ts';

/** What is taken of a file. */
export interface Choice {
  readonly part: number;
  readonly voice: number;
  /** First and last bar, from 1. */
  readonly bars: readonly [number, number];
  readonly chords: ChordWay;
}

/** A line of a file as a tune, with what was changed to make it one. */
export interface Taken {
  readonly tune: Tune;
  /** Quarter notes a bar. */
  readonly beats: number;
  readonly tempo: number | null;
  readonly said: readonly string[];
}

/** A line of one note at a time; times in ticks from its first bar line. */
interface Line {
  readonly note: FileNote;
  readonly from: number;
  readonly to: number;
}

/** The piece that a part plays. */
export const pieceOf = (file: FileRead, part: FilePart): FilePiece => part.piece ?? file;

/** Bars of a metre as whole quarter notes, as phrases have them; odd eighths are doubled. */
function beatsOf({ metre }: FilePiece): { readonly beats: number; readonly said: readonly string[] } {
  const quarters = metre ? (metre.beats * 4) / metre.unit : 4;
  const whole = Number.isInteger(quarters) ? quarters : quarters * 2;
  const fits = Number.isInteger(whole) && whole <= 12;
  const beats = fits ? (whole < 2 ? whole * 2 : whole) : 4;
  return {
    beats,
    said:
      metre && beats !== quarters ? [`Bars of ${metre.beats}/${metre.unit} are written in ${beats}/4.`] : [],
  };
}

/**
 * The last bar, from 1, up to which the notes from bar `from` on fit into a phrase.
 *
 * @example lastBar(file, 0, 0, 1) // 2
 */
export function lastBar(file: FileRead, part: number, voice: number, from: number): number {
  const { bars } = pieceOf(file, file.parts[part]!);
  const starts = new Set<number>();
  let last = from;
  for (const { start } of file.parts[part]!.voices[voice]!.notes) {
    const bar = barAt(bars, start);
    if (bar < from) continue;
    starts.add(start);
    // Rests between the notes count as well.
    if (starts.size * 2 > PHRASE_LIMITS.notes) return Math.max(from, last);
    last = bar;
  }
  return Math.max(from, bars.length);
}

/** Notes one after the other: of those that begin together one, and each until the next one at most. */
function lineOf(
  notes: readonly FileNote[],
  from: number,
  to: number,
  chords: ChordWay,
): Result<{ readonly line: readonly Line[]; readonly said: readonly string[] }> {
  const groups: FileNote[][] = [];
  for (const it of notes) {
    const last = groups.at(-1);
    if (last && last[0]!.start === it.start) last.push(it);
    else groups.push([it]);
  }
  const together = groups.filter((it) => it.length > 1);
  const [first] = together;
  if (first && chords === 'refuse')
    return refuse(
      'take.chord',
      remarkSaid({
        where: first[0]!.where,
        said: `${first.length} notes sound together, and a phrase has one at a time. Take the top or the bottom line, or fewer bars`,
      }),
    );
  const height = ({ midi }: FileNote): number => midi ?? -1;
  const pick = (group: readonly FileNote[]): FileNote =>
    group.reduce((so, it) => ((chords === 'bottom') === height(it) < height(so) ? it : so));
  let over = 0;
  const line = groups.map((group, i): Line => {
    const note = pick(group);
    const next = Math.min(groups[i + 1]?.[0]!.start ?? to, to);
    const end = note.start + note.length;
    if (end > next) over++;
    return { note, from: note.start - from, to: Math.min(end, next) - from };
  });
  return ok({
    line,
    said: [
      ...(together.length
        ? [
            `In ${plural(together.length, 'place')} notes sound together: ${chords === 'bottom' ? 'the lowest' : 'the highest'} is taken.`,
          ]
        : []),
      ...(over
        ? [
            `${plural(over, 'note')} would sound on into the next one: there ${over === 1 ? 'it ends' : 'they end'}.`,
          ]
        : []),
    ],
  });
}

/** A note that is let go so soon before the next one, in parts of the time from one to the other, is meant to last until it. */
const LET_GO = 0.35;
const isWritten = (at: number): boolean => UNITS.some((unit) => isOn(at % QUARTER, unit));
/** Notes as a player lets go of them, a little early, as they are meant: each until the next one, the last one to a sixteenth. */
const held = (line: readonly Line[]): readonly Line[] =>
  line.map((it, i) => {
    if (isWritten(it.to)) return it;
    const next = line[i + 1]?.from ?? Math.ceil(it.to / (QUARTER / 4)) * (QUARTER / 4);
    return next - it.to < LET_GO * (next - it.from) ? { ...it, to: next } : it;
  });

/** Times brought to where they can be written: within each beat to parts of one kind, those that move the notes least. */
function onGrid(
  line: readonly Line[],
  barOf: (tick: number) => number,
): { readonly line: readonly Line[]; readonly said: readonly string[] } {
  const cuts = new Map<number, Set<number>>();
  for (const { from, to } of line)
    for (const at of [from, to]) {
      const beat = Math.floor(at / QUARTER);
      cuts.set(beat, (cuts.get(beat) ?? new Set()).add(at % QUARTER));
    }
  const to = new Map<number, number>();
  const moved = new Set<number>();
  for (const [beat, within] of cuts) {
    const far = (unit: number): number =>
      [...within].reduce((sum, at) => sum + Math.abs(at - Math.round(at / unit) * unit), 0);
    const fits = UNITS.find((unit) => [...within].every((at) => isOn(at, unit)));
    // Of those that fit alike the first, which is the plainest.
    const unit = fits ?? UNITS.reduce((best, it) => (far(it) < far(best) * 0.8 ? it : best));
    for (const at of within) {
      const there = Math.round(Math.round(at / unit) * unit);
      to.set(beat * QUARTER + at, beat * QUARTER + there);
      if (Math.abs(there - at) > 1) moved.add(barOf(beat * QUARTER));
    }
  }
  const gone: number[] = [];
  const brought = line.flatMap((it): readonly Line[] => {
    const [start, end] = [to.get(it.from)!, to.get(it.to)!];
    if (end > start) return [{ ...it, from: start, to: end }];
    gone.push(barOf(it.from));
    return [];
  });
  const bars = [...moved].sort((a, b) => a - b);
  return {
    line: brought,
    said: [
      ...(bars.length
        ? [
            `In ${bars.length > 1 ? 'bars' : 'bar'} ${some(bars)} times are brought to the nearest that can be written.`,
          ]
        : []),
      ...(gone.length
        ? [`${plural(gone.length, 'note')} shorter than that ${gone.length === 1 ? 'is' : 'are'} left out.`]
        : []),
    ],
  };
}
/** The first of many numbers. */
const some = (numbers: readonly number[]): string =>
  numbers.length > 8
    ? `${numbers.slice(0, 8).join(', ')} and ${numbers.length - 8} more`
    : list(numbers.map(String));

const [SHORTEST, LONGEST] = PHRASE_LIMITS.length;
/** How much of a length a phrase can have in one piece, so that what is left is not too short for another one. */
const pieceOfLength = (ticks: number): number => {
  if (ticks <= LONGEST) return ticks;
  return ticks - LONGEST < SHORTEST ? LONGEST - QUARTER : LONGEST;
};
/** A silence, in pieces that a phrase can have. */
function rests(ticks: number): readonly TuneNote[] {
  const pieces: TuneNote[] = [];
  for (let left = ticks; left > 0; left -= pieces.at(-1)!.length)
    pieces.push({ midi: null, string: null, length: pieceOfLength(left) });
  return pieces;
}

/**
 * A voice of a file, or some bars of it, as a tune: one note at a time, in times that can be written, a pickup at the end of its bar. Strings,
 * fingers, slurs, slides, bends are kept. What is changed is said. Codes: `take.bars`, `take.chord`, `take.none`, `take.many`.
 *
 * @example taken(file, { part: 0, voice: 0, bars: [1, 1], chords: 'top' }).value.tune.length // 4
 */
export function taken(file: FileRead, { part, voice, bars, chords }: Choice): Result<Taken> {
  const from = file.parts[part]!;
  const piece = pieceOf(file, from);
  const [first, last] = bars;
  if (!(first >= 1 && first <= last && last <= piece.bars.length))
    return refuse('take.bars', `Bars: from 1 to ${piece.bars.length}, the first before the last.`);
  const { beats, said: metre } = beatsOf(piece);
  const begin = piece.bars[first - 1]!;
  const end = piece.bars[last - 1]!.start + piece.bars[last - 1]!.length;
  const chosen = from.voices[voice]!.notes.filter(({ start }) => start >= begin.start && start < end);
  if (!chosen.some(({ midi }) => midi !== null))
    return refuse('take.none', 'There is no note in these bars: choose others.');
  const one = lineOf(chosen, begin.start, end, chords);
  if (!one.ok) return one;
  // A first bar that is shorter than the others is a pickup: it ends where a bar ends.
  const usual = piece.metre ? (piece.metre.beats * 4 * QUARTER) / piece.metre.unit : 4 * QUARTER;
  const isPickup = file.timed && first === 1 && piece.bars.length > 1 && begin.length < usual;
  const pad = isPickup ? usual - begin.length : 0;
  const shifted = held(one.value.line).map((it) => ({ ...it, from: it.from + pad, to: it.to + pad }));
  const grid = onGrid(shifted, (tick) => barAt(piece.bars, tick - pad + begin.start));
  const tune: TuneNote[] = [];
  let at = 0;
  let long = 0;
  let apart = 0;
  let before: FileNote | null = null;
  for (const { note, from: start, to } of grid.line) {
    tune.push(...rests(start - at));
    const length = pieceOfLength(to - start);
    if (length < to - start) long++;
    at = start + length;
    if (note.midi === null) tune.push(...rests(length));
    else {
      const { midi, string, finger, bend, vibrato, accent } = note;
      // A slur or slide joins notes of one string.
      const isApart = note.joined !== undefined && note.joined !== 'tap' && string !== before?.string;
      const joined = isApart ? undefined : note.joined;
      if (isApart) apart++;
      tune.push({
        midi,
        string: string ?? null,
        length,
        ...(finger !== undefined && { finger }),
        ...(joined && { joined }),
        ...(bend && { bend }),
        ...(vibrato && { vibrato }),
        ...(accent && { accent }),
      });
    }
    before = note.midi === null ? null : note;
  }
  if (tune.length > PHRASE_LIMITS.notes)
    return refuse(
      'take.many',
      `Bars ${first} to ${last} have ${tune.length} notes and rests, and a phrase has at most ${PHRASE_LIMITS.notes}: take fewer bars.`,
    );
  return ok({
    tune,
    beats,
    tempo: piece.tempo,
    said: [
      ...metre,
      ...one.value.said,
      ...grid.said,
      ...(apart
        ? [
            `${plural(apart, 'note')} slurred or slid to from another string ${apart === 1 ? 'is' : 'are'} picked.`,
          ]
        : []),
      ...(long
        ? [`${plural(long, 'note')} longer than four whole notes ${long === 1 ? 'is' : 'are'} shortened.`]
        : []),
    ],
  });
}

/**
 * Remarks of a reader as sentences, those that say the same as one: "Line 3, column 4 and 12 more places: …".
 *
 * @example remarksSaid([{ where: { bar: 1 }, said: 'a cue is left out' }, { where: { bar: 2 }, said: 'a cue is left out' }]) // ["Bar 1 and 1 more place: a cue is left out."]
 */
export function remarksSaid(remarks: readonly Remark[]): readonly string[] {
  const same = new Map<string, Remark[]>();
  for (const it of remarks) same.set(it.said, [...(same.get(it.said) ?? []), it]);
  return [...same.values()].map(([first, ...more]) => {
    const said = remarkSaid(first!);
    if (!more.length) return said;
    const at = said.indexOf(`: ${first!.said}`);
    return at < 0 ? said : `${said.slice(0, at)} and ${plural(more.length, 'more place')}${said.slice(at)}`;
  });
}

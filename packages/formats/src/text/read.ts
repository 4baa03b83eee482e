import { ok, type Result } from '@crow-ladder/core';
import { QUARTER } from '@crow-ladder/core/run';
import { textOf } from '../bytes.ts';
import {
  type FileBar,
  type FileNote,
  type FileRead,
  inOrder,
  notesMany,
  refuseAt,
  type Remark,
} from '../found.ts';
import { FILE_LIMITS } from '../named.ts';
import { type ReadOptions, type Untimed } from '../format.ts';
import { type Block, linesOf, type TabLine, type Word } from './lines.ts';
import { type Length, lengthIn } from './rhythm.ts';
import { type Signed, signsOf } from './signs.ts';
import { type Tuned, tunedAs } from './tuned.ts';

/** A note with where it stands: its column in the text as it is written, and in the bars laid over each other. */
interface Placed extends Signed {
  readonly string: number;
  readonly raw: number;
  readonly at: number;
  readonly bar: number;
  finger?: number;
  accent?: true;
}
/** Notes that are struck together, and how long they last, where that is told. */
interface Slot {
  readonly notes: readonly Placed[];
  readonly at: number;
  readonly bar: number;
  length: number | null;
  /** The rests before it. */
  before: number;
}

/** Bar lines of a text by their columns, from 0, but for one at its beginning. */
const barsAt = (text: string): readonly number[] =>
  [...text].flatMap((c, i) =>
    c === '|' && i > 0 && !/^[|:\s]*$/u.test(text.slice(0, i)) && text[i - 1] !== '|' ? [i] : [],
  );
/** A bar line that ends the text. */
const isLast = (text: string, at: number): boolean => /^[|:*\s]*$/u.test(text.slice(at));

/** A block whose strings are read, with the number of bars in it. */
interface BlockRead {
  readonly slots: Slot[];
  readonly bars: number;
}

function notesOf(
  { lines }: Block,
  { strings }: Tuned,
  begun: ReadonlySet<number>,
  bar: number,
  remark: (it: Remark) => void,
): Result<BlockRead> {
  const lineBars = lines.map(({ text }) => barsAt(text));
  const isEven = lineBars.every((at) => at.length === lineBars[0]!.length);
  const most = lineBars.reduce((a, b) => (b.length > a.length ? b : a));
  const longest = lines[lineBars.indexOf(most)]!;
  if (!isEven)
    remark({
      where: { line: lines[0]!.line, column: lines[0]!.from },
      said: 'the strings have not as many bar lines: notes are read by their columns',
    });
  // A bar begins where the latest of its strings begins it.
  const begins = (it: number): number => (it === 0 ? 0 : Math.max(...lineBars.map((at) => at[it - 1]!)));
  const placed: Placed[] = [];
  for (const [i, line] of lines.entries()) {
    const string = strings[i]!;
    const read = signsOf(line, begun.has(string), remark);
    if (!read.ok) return read;
    for (const note of read.value) {
      const own = lineBars[i]!;
      const raw = line.from + note.at;
      const nth = isEven
        ? own.filter((at) => at < note.at).length
        : most.filter((at) => longest.from + at < raw).length;
      const at = isEven ? begins(nth) + note.at - (nth === 0 ? 0 : own[nth - 1]!) : raw;
      placed.push({ ...note, string, raw, at, bar: bar + nth });
    }
  }
  const slots = new Map<number, Placed[]>();
  for (const note of placed) slots.set(note.at, [...(slots.get(note.at) ?? []), note]);
  const open = most.at(-1) === undefined || !isLast(longest.text, most.at(-1)!);
  return ok({
    slots: [...slots]
      .sort(([a], [b]) => a - b)
      .map(([at, notes]) => ({ notes, at, bar: notes[0]!.bar, length: null, before: 0 })),
    bars: most.length + (open ? 1 : 0),
  });
}

/** Words of a line with their columns, from 1. */
const wordsAt = ({ text }: Word): readonly { readonly word: string; readonly column: number }[] =>
  [...text.matchAll(/\S+/gu)].map((it) => ({ word: it[0], column: it.index + 1 }));

/** The slot that a word stands over or under. */
const slotAt = (slots: readonly Slot[], column: number): number =>
  slots.findIndex(({ notes }) => notes.some(({ raw }) => Math.abs(raw - column) <= 1));

/** Lengths written over a block; whether every note has one. What lasts after the last note is `after`. */
function timed(slots: readonly Slot[], above: Word | null): { readonly after: number } | null {
  if (!above) return null;
  const words = wordsAt(above).map(({ word, column }) => ({
    column,
    length: lengthIn(word) ?? lengthIn(word.toLowerCase()),
  }));
  if (words.some(({ length }) => !length)) return null;
  const lengths: (number | null)[] = slots.map(() => null);
  const before = slots.map(() => 0);
  let rests = 0;
  for (const { column, length } of words as { column: number; length: Length }[]) {
    if (length.rest) {
      rests += length.ticks;
      continue;
    }
    const at = slotAt(slots, column);
    if (at < 0 || lengths[at] !== null) return null;
    lengths[at] = length.ticks;
    before[at] = rests;
    rests = 0;
  }
  if (lengths.some((it) => it === null)) return null;
  slots.forEach((slot, i) => {
    slot.length = lengths[i]!;
    slot.before = before[i]!;
  });
  return { after: rests };
}

const FINGER = /^([0-4t])(>?)$/u;
/** Fingers written under a block, one for each stroke; whether they are. */
function fingered(slots: readonly Slot[], below: Word | null): boolean {
  if (!below) return false;
  const words = wordsAt(below).map(({ word, column }) => ({
    read: FINGER.exec(word),
    at: slotAt(slots, column),
  }));
  const isAll = words.length === slots.length && words.every(({ read, at }, i) => read && at === i);
  if (!isAll) return false;
  words.forEach(({ read, at }) => {
    const note = slots[at]!.notes[0]!;
    if (/[1-4]/u.test(read![1]!)) note.finger = Number(read![1]);
    if (read![2]) note.accent = true;
  });
  return true;
}

const TEMPO = /\b(?:tempo|speed)\D{0,12}(\d{2,3})\b|=\s*(\d{2,3})\b|\b(\d{2,3})\s*bpm\b/iu;
const METRE = /(?<![\d/])(\d{1,2})\/(2|4|8|16)(?![\d/])/u;
const TITLE = /^\s*(?:#+|\/\/|title\s*[:=])?\s*/iu;
/** Lines at the top that say something else than what it is called. */
const NO_TITLE = /^\s*(?:#|\/\/)|\btun(?:ing|ed)\b|\bcapo\b|\btempo\b|^[\s\d/=♩.-]*$|^\s*[-=*_~]+\s*$/iu;

function titleOf(words: readonly Word[], first: number): string | null {
  const lines = words.filter(({ line }) => line < first);
  const named = lines.find(({ text }) => /^\s*title\s*[:=]/iu.test(text));
  const it = named ?? lines.find(({ text }) => !NO_TITLE.test(text));
  return it?.text.replace(TITLE, '').trim().slice(0, 120) || null;
}

/**
 * Tablature as people type it: a line for each string, the highest on top (or the lowest, where names or words say so), with names or without, uneven, with
 * bar lines or without, `h p` slurs, `/ \ s` slides, `b` a bend and the fret that it sounds like, `r` released, `~ v` vibrato, `t` a tap,
 * `x` muted. Lines wrap into blocks. Letters over the strings tell lengths, digits under them fingers. What was not certain is
 * remarked. Codes, each with line and column: `tab.none`, `tab.strings`, `tab.names`, `tab.fret`, `tab.sign`, `tab.bend`,
 * `tab.release`, `tab.join`; `file.size`, `file.notes`.
 */
export function readText(
  bytes: Uint8Array,
  { open, onProgress, untimed }: ReadOptions = {},
): Result<FileRead> {
  const decoded = textOf(bytes);
  if (!decoded.ok) return decoded;
  const remarks: Remark[] = [];
  const remark = (it: Remark): void => void remarks.push(it);
  const { blocks: all, words } = linesOf(decoded.value);
  const noted = (lines: readonly TabLine[]): boolean => lines.some(({ text }) => /\d|x/iu.test(text));
  // A rule under a title is no string.
  const blocks = all.filter(({ lines }) => lines.length > 2 || noted(lines));
  const [first] = blocks;
  if (!first)
    return refuseAt(
      'tab.none',
      { line: 1, column: 1 },
      'no line of tablature is found. Write a line for each string, with dashes and fret numbers',
    );
  const top = first.lines[0]!;
  const many = first.lines.length;
  const tuned = tunedAs(first.lines, words, open, remark);
  if (!tuned.ok) return tuned;
  const understood = new Set<number>();
  const reads: BlockRead[] = [];
  const begun = new Set<number>();
  let notes = 0;
  let bar = 0;
  let times = true;
  const rests: number[] = [];
  for (const [i, block] of blocks.entries()) {
    onProgress?.(i / blocks.length);
    const [head] = block.lines;
    if (block.lines.length !== many)
      return refuseAt(
        'tab.strings',
        { line: head!.line, column: head!.from },
        `${block.lines.length} lines stand together here, and ${many} did before: write a line for each string`,
      );
    const read = notesOf(block, tuned.value, begun, bar, remark);
    if (!read.ok) return read;
    const { slots } = read.value;
    notes += slots.reduce((sum, it) => sum + it.notes.length, 0);
    if (notes > FILE_LIMITS.notes) return notesMany(notes, { line: head!.line });
    bar += read.value.bars;
    reads.push(read.value);
    for (const { notes: struck } of slots) for (const { string } of struck) begun.add(string);
    const told = timed(slots, block.above);
    if (told) understood.add(block.above!.line);
    // A bar that a note before it fills has nothing over it.
    times &&= told !== null || (!slots.length && !block.above);
    rests.push(told?.after ?? 0);
    if (fingered(slots, block.below)) understood.add(block.below!.line);
  }
  if (!notes) return refuseAt('tab.none', { line: top.line, column: 1 }, 'there is no note on these strings');
  const slots = inTime(reads, rests, times, untimed ?? { length: QUARTER / 2, spaced: false });
  const passed = words.filter(({ line }) => !understood.has(line)).map(({ line }) => line);
  const [tempo, metre] = [TEMPO, METRE].map((it) => words.map(({ text }) => it.exec(text)).find(Boolean));
  if (decoded.value.includes('|:') || decoded.value.includes(':|'))
    remark({ where: { line: top.line }, said: 'what is repeated is written once' });
  if (passed.length)
    remark({
      where: {},
      said: `passed over, as ${passed.length > 1 ? 'they are' : 'it is'} no string: line ${passed.join(', ')}`,
    });
  const beats = metre && Number(metre[1]) > 0 ? { beats: Number(metre[1]), unit: Number(metre[2]) } : null;
  return ok({
    title: titleOf(words, top.line),
    tempo: tempo ? Number(tempo[1] ?? tempo[2] ?? tempo[3]) : null,
    key: null,
    metre: beats,
    bars: barsOf(slots, times ? (beats ?? { beats: 4, unit: 4 }) : null),
    timed: times,
    parts: [
      {
        name: '',
        open: tuned.value.open,
        voices: [{ name: '', notes: inOrder(slots.flatMap((slot) => noteOf(slot, tuned.value))) }],
      },
    ],
    remarks,
  });
}

/** A slot with when it sounds, in ticks. */
interface Timed extends Slot {
  readonly start: number;
  readonly ticks: number;
}
function inTime(
  reads: readonly BlockRead[],
  rests: readonly number[],
  timedAll: boolean,
  { length, spaced }: Untimed,
): readonly Timed[] {
  const timed: Timed[] = [];
  if (timedAll) {
    let at = 0;
    reads.forEach(({ slots }, i) => {
      for (const slot of slots) {
        at += slot.before;
        const start = Math.round(at);
        at += slot.length!;
        timed.push({ ...slot, start, ticks: Math.round(at) - start });
      }
      at += rests[i]!;
    });
    return timed;
  }
  const all: Slot[] = [];
  let before = 0;
  for (const { slots } of reads) {
    all.push(...slots.map((slot) => ({ ...slot, at: before + slot.at })));
    before += (slots.at(-1)?.at ?? 0) + 2;
  }
  const apart = all.slice(1).map((slot, i) => slot.at - all[i]!.at);
  const least = apart.reduce((a, b) => Math.min(a, b), Infinity);
  let start = 0;
  all.forEach((slot, i) => {
    const times = !spaced || apart[i] === undefined ? 1 : Math.max(1, Math.round(apart[i] / least));
    timed.push({ ...slot, start, ticks: times * length });
    start += times * length;
  });
  return timed;
}

const noteOf = ({ notes, start, ticks }: Timed, { open }: Tuned): readonly FileNote[] =>
  notes.map(({ fret, string, where, joined, bend, vibrato, finger, accent }) => ({
    midi: fret === null ? null : open[string - 1]! + fret,
    start,
    length: ticks,
    where,
    string,
    ...(fret !== null && { fret }),
    ...(joined && { joined }),
    ...(bend && { bend }),
    ...(vibrato && { vibrato }),
    ...(finger && { finger }),
    ...(accent && { accent }),
  }));

/** Bars of a text: of its metre where it tells times, else as they are drawn. */
function barsOf(
  slots: readonly Timed[],
  metre: { readonly beats: number; readonly unit: number } | null,
): readonly FileBar[] {
  const last = slots.at(-1)!;
  const end = last.start + last.ticks;
  if (metre) {
    const length = (metre.beats * 4 * QUARTER) / metre.unit;
    return Array.from({ length: Math.max(1, Math.ceil(end / length)) }, (_, i) => ({
      start: i * length,
      length,
    }));
  }
  const begins = new Map<number, number>();
  for (const { bar, start } of slots) if (!begins.has(bar)) begins.set(bar, start);
  const starts = [...begins.values()];
  return starts.map((start, i) => ({ start, length: (starts[i + 1] ?? end) - start }));
}

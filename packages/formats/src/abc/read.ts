import abcjs from 'abcjs';
import { mod, ok, type Result } from '@crow-ladder/core';
import { QUARTER } from '@crow-ladder/core/run';
import { textOf } from '../bytes.ts';
import {
  barAt,
  type FileBar,
  type FileNote,
  type FilePart,
  type FilePiece,
  type FileRead,
  inOrder,
  lastFrom,
  notesMany,
  refuseAt,
  type Remark,
  type Where,
} from '../found.ts';
import { FILE_LIMITS } from '../named.ts';
import { type ReadOptions } from '../format.ts';

/** What the parser tells of a pitch: its letter counted from middle C, and the accidental that stands before it. */
interface AbcPitch {
  readonly pitch: number;
  readonly accidental?: string;
  readonly startTie?: unknown;
  readonly endTie?: unknown;
  readonly startSlur?: readonly unknown[];
  readonly endSlur?: readonly unknown[];
}
/** What the parser tells of an element of a voice. */
interface AbcElement {
  readonly el_type: string;
  readonly startChar?: number;
  readonly duration?: number;
  readonly pitches?: readonly AbcPitch[];
  readonly rest?: { readonly type: string; readonly text?: number };
  readonly startTriplet?: number;
  readonly tripletMultiplier?: number;
  readonly endTriplet?: boolean;
  readonly gracenotes?: readonly unknown[];
  readonly decoration?: readonly string[];
  readonly accidentals?: readonly AbcSign[];
  readonly type?: string;
  readonly startEnding?: string;
  readonly value?: readonly { readonly num: string; readonly den?: string }[];
}
interface AbcSign {
  readonly acc: string;
  readonly note: string;
}
interface AbcStaff {
  readonly voices?: readonly (readonly AbcElement[])[];
  readonly key?: { readonly accidentals?: readonly AbcSign[]; readonly mode?: string };
  readonly meter?: { readonly type: string; readonly value?: AbcElement['value'] };
  readonly clef?: { readonly type?: string };
  readonly title?: { readonly name?: string } | null;
}
interface AbcTune {
  readonly lines: readonly { readonly staff?: readonly AbcStaff[] }[];
  readonly metaText: {
    readonly title?: string;
    readonly tempo?: { readonly duration?: readonly number[]; readonly bpm?: number };
  };
  readonly warnings?: readonly string[];
}

/** Characters of a tune: 20,000 notes need fewer. */
const LONG = 200_000;
const WHOLE = 4 * QUARTER;
/** No piece lasts longer, in ticks: a note that goes on beyond it is left out. */
const ENDLESS = 20_000 * WHOLE;
const NATURAL = [0, 2, 4, 5, 7, 9, 11];
const LETTER = 'cdefgab';
const SIGN: Readonly<Record<string, number>> = {
  dblsharp: 2,
  sharp: 1,
  quartersharp: 0,
  natural: 0,
  quarterflat: 0,
  flat: -1,
  dblflat: -2,
};

/** A tune of a book: its text, and the line that it begins in, from 1. */
interface Tune {
  readonly text: string;
  readonly line: number;
}
/** A book's tunes; what stands before the first of them as a field holds for all. */
function tunesOf(text: string): readonly Tune[] {
  const lines = text.split(/\r\n|\r|\n/u);
  const begins = lines.flatMap((it, i) => (/^X:/u.test(it) ? [i] : []));
  if (!begins.length) return [{ text: lines.join('\n'), line: 1 }];
  const fields = lines.slice(0, begins[0]).filter((it) => /^(?:[MLQR]:|%%)/u.test(it));
  return begins.map((from, i) => ({
    text: [lines[from]!, ...fields, ...lines.slice(from + 1, begins[i + 1])].join('\n'),
    line: from + 1 - fields.length,
  }));
}

/** Where a character of a tune stands. */
function placesIn({ text, line }: Tune): (at: number | undefined) => Where {
  const starts = [0];
  for (let at = text.indexOf('\n'); at >= 0; at = text.indexOf('\n', at + 1)) starts.push(at + 1);
  return (at) => {
    if (at === undefined) return {};
    const low = lastFrom(starts.length, (i) => starts[i]!, at);
    return { line: line + low, column: at - starts[low]! + 1 };
  };
}

const signsIn = (signs: readonly AbcSign[] = []): ReadonlyMap<string, number> =>
  new Map(signs.map(({ acc, note }) => [note.toLowerCase(), SIGN[acc] ?? 0]));

/** A voice while it is read. */
interface Voice {
  at: number;
  key: ReadonlyMap<string, number>;
  /** Accidentals of this bar: they hold for their letter in every octave (ABC 2.1, section 11.3). */
  bar: Map<string, number>;
  tuplet: number;
  slurs: number;
  higher: number;
  readonly notes: FileNote[];
  /** Notes that are tied on, by their pitch, as places among the notes. */
  ties: Map<number, number>;
  readonly bars: number[];
}
const begun = (at: number, key: Voice['key'], higher: number): Voice => ({
  at,
  key,
  bar: new Map(),
  tuplet: 1,
  slurs: 0,
  higher,
  notes: [],
  ties: new Map(),
  bars: [],
});

/** Clefs with an 8 below or above sound an octave lower or higher (ABC 2.1, section 4.6). */
const higherBy = (clef = ''): number => (clef.endsWith('-8') ? -12 : clef.endsWith('+8') ? 12 : 0);

const lengthOf = (value: readonly { readonly num: string; readonly den?: string }[] | undefined) => {
  const [first] = value ?? [];
  const [beats, unit] = [Number(first?.num), Number(first?.den ?? 4)];
  return Number.isInteger(beats) && beats > 0 && beats < 100 && [1, 2, 4, 8, 16, 32].includes(unit)
    ? { beats, unit }
    : null;
};

/** What one element adds to its voice. */
function hear(
  voice: Voice,
  it: AbcElement,
  where: Where,
  barTicks: number,
  remark: (it: Remark) => void,
): void {
  if (it.el_type === 'key') voice.key = signsIn(it.accidentals);
  if (it.el_type === 'clef') voice.higher = higherBy(it.type);
  if (it.el_type === 'bar') {
    voice.bar = new Map();
    voice.bars.push(voice.at);
    if (/repeat/u.test(it.type ?? '')) remark({ where, said: 'what is repeated is written once' });
  }
  if (it.el_type !== 'note') return;
  if (it.startTriplet) voice.tuplet = it.tripletMultiplier ?? 1;
  const bars = it.rest?.type === 'multimeasure' ? (it.rest.text ?? 1) : 0;
  const exact =
    it.rest?.type === 'spacer' ? 0 : bars ? bars * barTicks : (it.duration ?? 0) * WHOLE * voice.tuplet;
  if (it.endTriplet) voice.tuplet = 1;
  if (!Number.isFinite(exact) || exact < 0 || voice.at + exact > ENDLESS) {
    remark({ where, said: 'a length that cannot be played is left out' });
    return;
  }
  const start = Math.round(voice.at);
  voice.at += exact;
  const length = Math.round(voice.at) - start;
  if (it.gracenotes?.length) remark({ where, said: 'grace notes are left out' });
  if (!it.pitches?.length) return;
  if (length === 0) {
    remark({ where, said: 'a note without a length is left out' });
    return;
  }
  // A slur that ends here still joins this note; one that begins here joins the next.
  const joined = voice.slurs > 0 ? 'slur' : undefined;
  const slide = it.decoration?.includes('slide') ? 'slide' : undefined;
  const finger = it.decoration?.map(Number).find((n) => n >= 1 && n <= 4);
  const accent = it.decoration?.some((d) => d === 'accent' || d === '>') ? true : undefined;
  const ties = new Map<number, number>();
  for (const pitch of it.pitches) {
    voice.slurs += (pitch.startSlur?.length ?? 0) - (pitch.endSlur?.length ?? 0);
    const letter = LETTER[mod(pitch.pitch, 7)]!;
    const sign = pitch.accidental === undefined ? undefined : SIGN[pitch.accidental];
    if (pitch.accidental?.startsWith('quarter'))
      remark({ where, said: 'a quarter tone is taken as the plain note' });
    if (sign !== undefined) voice.bar.set(letter, sign);
    const tied = voice.ties.get(pitch.pitch);
    const before = tied === undefined ? undefined : voice.notes[tied];
    const alters = voice.bar.get(letter) ?? voice.key.get(letter) ?? 0;
    const plain =
      60 + 12 * Math.floor(pitch.pitch / 7) + NATURAL[mod(pitch.pitch, 7)]! + alters + voice.higher;
    // A note that is tied over a bar line keeps its accidental.
    const midi = before && sign === undefined ? before.midi! : plain;
    if (midi < 0 || midi > 127) {
      remark({ where, said: 'a note higher or lower than any that can be heard is left out' });
      continue;
    }
    if (before?.midi === midi && before.start + before.length === start) {
      voice.notes[tied!] = { ...before, length: before.length + length };
      if (pitch.startTie) ties.set(pitch.pitch, tied!);
      continue;
    }
    if (pitch.startTie) ties.set(pitch.pitch, voice.notes.length);
    voice.notes.push({
      midi,
      start,
      length,
      where,
      ...((slide ?? joined) && { joined: slide ?? joined }),
      ...(finger !== undefined && it.pitches.length === 1 && { finger }),
      ...(accent && { accent }),
    });
  }
  voice.ties = ties;
}

/** A piece of a book with its voices. */
interface TuneRead {
  readonly piece: FilePiece;
  readonly parts: readonly FilePart[];
}
function tuneRead(tune: Tune, parsed: AbcTune, remark: (it: Remark) => void): TuneRead {
  const place = placesIn(tune);
  const staves: Voice[][] = [];
  let metre: { readonly beats: number; readonly unit: number } | null = null;
  let key: FilePiece['key'] = null;
  let barTicks = WHOLE;
  for (const line of parsed.lines) {
    const now = staves.flat().reduce((so, { at }) => Math.min(so, at), Infinity);
    line.staff?.forEach((staff, s) => {
      const told =
        staff.meter?.type === 'specified'
          ? lengthOf(staff.meter.value)
          : staff.meter
            ? { beats: 4, unit: 4 }
            : null;
      metre ??= told;
      if (told) barTicks = (told.beats * WHOLE) / told.unit;
      if (staff.key && !key) {
        const signs = [...signsIn(staff.key.accidentals).values()];
        key = {
          fifths: Math.max(
            -7,
            Math.min(
              7,
              signs.reduce((a, b) => a + Math.sign(b), 0),
            ),
          ),
          minor: /^m(?!ix|aj)/iu.test(staff.key.mode ?? ''),
        };
      }
      const voices = (staves[s] ??= []);
      staff.voices?.forEach((elements, v) => {
        const voice = (voices[v] ??= begun(
          Number.isFinite(now) ? now : 0,
          signsIn(staff.key?.accidentals),
          higherBy(staff.clef?.type),
        ));
        for (const it of elements) {
          if (it.el_type === 'meter') {
            const next = lengthOf(it.value);
            if (next) barTicks = (next.beats * WHOLE) / next.unit;
          }
          hear(voice, it, place(it.startChar), barTicks, remark);
        }
      });
    });
  }
  for (const said of parsed.warnings ?? []) remark(warned(said, tune));
  const { title, tempo } = parsed.metaText;
  const all = staves.flat().filter(({ notes }) => notes.length);
  const end = all.reduce((so, { at }) => Math.max(so, at), 0);
  const starts = [...new Set([0, ...(staves[0]?.[0]?.bars ?? [])].map(Math.round))].filter((at) => at < end);
  const bars = starts.map((start, i): FileBar => ({
    start,
    length: (starts[i + 1] ?? Math.round(end)) - start,
  }));
  const [unit] = tempo?.duration ?? [];
  const quarters = tempo?.bpm && unit ? tempo.bpm * unit * 4 : null;
  const piece: FilePiece = {
    title: title ?? null,
    tempo:
      quarters && Number.isFinite(quarters) && quarters > 0 && quarters < 1000
        ? Math.round(quarters * 100) / 100
        : null,
    key,
    metre,
    bars,
  };
  const parts = all.map(({ notes }, i): FilePart => ({
    name: all.length > 1 ? `Voice ${i + 1}` : 'Voice',
    open: null,
    voices: [
      {
        name: '',
        notes: inOrder(notes.map((it) => ({ ...it, where: { ...it.where, bar: barAt(bars, it.start) } }))),
      },
    ],
  }));
  return { piece, parts };
}

/** What the parser warns of: its place, and the sign that it stumbled over, without its markup. */
function warned(said: string, { line }: Tune): Remark {
  const [, row, column, what = ''] = /^Music Line:(\d+):(\d+):\s*(.*)$/su.exec(said) ?? [];
  const sign = /<span[^>]*>(.*?)<\/span>/su.exec(what)?.[1];
  const plain = (text: string): string =>
    text
      .replace(/<[^>]*>/gu, '')
      .replace(/&lt;/gu, '<')
      .replace(/&gt;/gu, '>')
      .replace(/&amp;/gu, '&')
      .slice(0, 40);
  const where = row === undefined ? { line } : { line: line + Number(row) - 1, column: Number(column) };
  return { where, said: sign ? `“${plain(sign)}” is not understood` : 'something here is not understood' };
}

/**
 * ABC notation 2.1 (a book, its tunes in order): every voice with its times, ties, tuplets, slurs and fingers. Repeats are written
 * once, grace notes left out; what is not understood is remarked by line and column. Codes: `abc.none`, `abc.long`, `file.size`, `file.notes`.
 */
export function readAbc(bytes: Uint8Array, { onProgress }: ReadOptions = {}): Result<FileRead> {
  const decoded = textOf(bytes);
  if (!decoded.ok) return decoded;
  const tunes = tunesOf(decoded.value);
  const remarks: Remark[] = [];
  const remark = (it: Remark): void => void remarks.push(it);
  const reads: TuneRead[] = [];
  let notes = 0;
  for (const [i, tune] of tunes.entries()) {
    onProgress?.(i / tunes.length);
    if (tune.text.length > LONG)
      return refuseAt(
        'abc.long',
        { line: tune.line },
        `this tune has ${tune.text.length} characters, and at most ${LONG} can be read: save a part of it`,
      );
    let parsed: AbcTune | undefined;
    try {
      [parsed] = abcjs.parseOnly(tune.text) as unknown as readonly AbcTune[];
    } catch {
      return refuseAt('abc.tune', { line: tune.line }, 'this tune cannot be read');
    }
    if (!parsed) continue;
    const read = tuneRead(tune, parsed, remark);
    notes += read.parts.reduce((sum, { voices }) => sum + voices[0]!.notes.length, 0);
    if (notes > FILE_LIMITS.notes) return notesMany(notes, { line: tune.line });
    if (read.parts.length) reads.push(read);
  }
  const [first] = reads;
  if (!first)
    return refuseAt(
      'abc.none',
      { line: 1, column: 1 },
      'no tune is found. A tune begins with X:, has a key in K:, and its notes below',
    );
  return ok({
    ...first.piece,
    timed: true,
    parts: reads.flatMap(({ piece, parts }) =>
      reads.length === 1
        ? parts
        : parts.map((part) => ({
            ...part,
            piece,
            name: [piece.title ?? 'Tune', ...(parts.length > 1 ? [part.name] : [])].join(': '),
          })),
    ),
    remarks,
  });
}

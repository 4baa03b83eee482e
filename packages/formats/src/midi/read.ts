import { ok, parsePitch, type Result } from '@crow-ladder/core';
import { QUARTER } from '@crow-ladder/core/run';
import { type MidiEvent, parseMidi } from 'midi-file';
import { textOf, tooBig } from '../bytes.ts';
import {
  barAt,
  type FileBar,
  type FileNote,
  type FilePart,
  type FileRead,
  inOrder,
  notesMany,
  refuseAt,
  type Remark,
  ticksOfQuarters,
} from '../found.ts';
import { FILE_LIMITS } from '../named.ts';
import { type ReadOptions } from '../format.ts';
import { type Bent, heldOf } from './bends.ts';
import { DRUMS, LOUD, STEP, WHEEL } from './write.ts';

const HEAD = 14;
const CHUNK = 8;
/** Tracks with anything in them that are looked at. */
const TRACKS = 256;
/** The range of the wheel where none is told, in half steps (General MIDI). */
const USUAL_RANGE = 2;
/** So much louder than the middle of its part a note has an accent. */
const LOUDER = 20;
/** The tempo where none is told, in microseconds a quarter note (RP-001). */
const USUAL_TEMPO = 500_000;

/** A track by its events, each with its time in the file's own ticks. */
interface Track {
  readonly nth: number;
  readonly events: readonly (MidiEvent & { readonly at: number })[];
}

const tagAt = (bytes: Uint8Array, at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));
const longAt = (bytes: Uint8Array, at: number): number =>
  new DataView(bytes.buffer, bytes.byteOffset).getUint32(at);

/** A file's chunks, each track read by itself, so that what is wrong with one is told with its place. */
function tracksOf(
  bytes: Uint8Array,
  remark: (it: Remark) => void,
  onProgress?: (done: number) => void,
): Result<readonly Track[]> {
  const tracks: Track[] = [];
  let at = CHUNK + longAt(bytes, 4);
  let nth = 0;
  while (at + CHUNK <= bytes.length) {
    onProgress?.(at / bytes.length / 2);
    const tag = tagAt(bytes, at);
    const length = longAt(bytes, at + 4);
    const from = at + CHUNK;
    const to = Math.min(from + length, bytes.length);
    if (tag === 'MTrk') {
      nth++;
      if (nth > TRACKS)
        return refuseAt('midi.tracks', { track: nth, byte: at }, `a file may have at most ${TRACKS} tracks`);
      if (from + length > bytes.length)
        remark({
          where: { track: nth, byte: at },
          said: 'the file ends before the track does: what is there is read',
        });
      const read = eventsOf(bytes, from, to, nth);
      if (!read.ok) return read;
      tracks.push({ nth, events: read.value });
    } else if (!/^[ -~]{4}$/u.test(tag))
      return refuseAt('midi.chunk', { byte: at }, 'no track begins here: the file is damaged');
    at = to;
  }
  return ok(tracks);
}
/** The events of one track, read as a file of its own. */
function eventsOf(bytes: Uint8Array, from: number, to: number, nth: number): Result<Track['events']> {
  const alone = new Uint8Array(HEAD + CHUNK + to - from);
  alone.set(bytes.subarray(0, 4));
  const view = new DataView(alone.buffer);
  view.setUint32(4, 6);
  view.setUint16(10, 1);
  view.setUint16(12, QUARTER);
  alone.set([0x4d, 0x54, 0x72, 0x6b], HEAD);
  view.setUint32(HEAD + 4, to - from);
  alone.set(bytes.subarray(from, to), HEAD + CHUNK);
  try {
    let at = 0;
    const [events = []] = parseMidi(alone).tracks;
    return ok(
      events.map((event) => {
        const { deltaTime } = event;
        at += Number.isFinite(deltaTime) ? deltaTime : 0;
        return { ...event, at };
      }),
    );
  } catch {
    return refuseAt(
      'midi.event',
      { track: nth, byte: from },
      'an event of this track cannot be read: the file is damaged',
    );
  }
}

/** Text of a file, whose bytes were taken for characters. */
function textIn(raw: unknown): string {
  const read = textOf(Uint8Array.from([...String(raw)].map((c) => c.charCodeAt(0) & 255)));
  return read.ok
    ? read.value
        .replace(/[\u0000-\u001f\u007f]/gu, ' ')
        .trim()
        .slice(0, 120)
    : '';
}

/** The file's own ticks as quarter notes. */
function clockOf(
  bytes: Uint8Array,
  tempos: readonly { readonly at: number; readonly us: number }[],
): (tick: number) => number {
  const division = new DataView(bytes.buffer, bytes.byteOffset).getUint16(12);
  if (!(division & 0x8000)) return (tick) => tick / Math.max(1, division);
  // Frames a second, negative, and ticks a frame: seconds, which the tempo makes quarter notes of.
  const told = 256 - (division >> 8);
  const rate = (told === 29 ? 30_000 / 1001 : told) * Math.max(1, division & 255);
  return (tick) => {
    let [quarters, at, us] = [0, 0, USUAL_TEMPO];
    for (const tempo of tempos) {
      if (tempo.at >= tick) break;
      quarters += ((tempo.at - at) / rate) * (1e6 / us);
      [at, us] = [tempo.at, tempo.us];
    }
    return quarters + ((tick - at) / rate) * (1e6 / us);
  };
}

/** A note as it was struck, with the turns of the wheel while it sounds. */
interface Struck {
  readonly midi: number;
  readonly at: number;
  readonly velocity: number;
  end: number | null;
  readonly wheel: { readonly at: number; readonly up: number }[];
}

/** The notes of one channel of a track. */
function channelNotes({ events }: Track, channel: number): readonly Struck[] {
  const all: Struck[] = [];
  const sounding = new Map<number, Struck[]>();
  let [range, up] = [USUAL_RANGE, 0];
  let parameter = [127, 127];
  const end = (midi: number, at: number): void => {
    const first = sounding.get(midi)?.shift();
    if (first) first.end = at;
  };
  for (const event of events) {
    if (!('channel' in event) || event.channel !== channel) continue;
    const { at } = event;
    // Bytes of data have no more than seven bits: others are what is left of a damaged event.
    if ('velocity' in event && !(event.noteNumber <= 127 && event.velocity <= 127)) continue;
    if (event.type === 'noteOn' && event.velocity > 0) {
      const note: Struck = {
        midi: event.noteNumber,
        at,
        velocity: event.velocity,
        end: null,
        wheel: up ? [{ at, up }] : [],
      };
      all.push(note);
      const same = sounding.get(note.midi) ?? [];
      same.push(note);
      sounding.set(note.midi, same);
    } else if (event.type === 'noteOff' || event.type === 'noteOn') end(event.noteNumber, at);
    else if (event.type === 'controller') {
      if (event.controllerType === 101) parameter = [event.value, parameter[1]!];
      else if (event.controllerType === 100) parameter = [parameter[0]!, event.value];
      else if (event.controllerType === 6 && parameter.every((it) => it === 0)) range = event.value;
    } else if (event.type === 'pitchBend') {
      up = (event.value / WHEEL.middle) * range;
      for (const notes of sounding.values()) for (const note of notes) note.wheel.push({ at, up });
    }
  }
  return all;
}

/** A track of one string, as this application and others name them. */
const STRING = /^string\s*(\d{1,2})(?:\s+([A-G][#b♯♭]?-?\d))?$/iu;

/**
 * A Standard MIDI file: its notes by track and channel, with bends and vibrato where the wheel turns; drums are left out. Tracks that
 * are named as strings are one instrument. Codes, each with byte and track: `midi.head`, `midi.chunk`, `midi.event`, `midi.tracks`, `midi.none`;
 * `file.size`, `file.notes`.
 */
export function readMidiFile(bytes: Uint8Array, { onProgress }: ReadOptions = {}): Result<FileRead> {
  if (bytes.length > FILE_LIMITS.bytes) return tooBig(bytes.length);
  if (bytes.length < HEAD || tagAt(bytes, 0) !== 'MThd')
    return refuseAt('midi.head', { byte: 0 }, 'this is no Standard MIDI file');
  const remarks: Remark[] = [];
  const remark = (it: Remark): void => void remarks.push(it);
  const tracks = tracksOf(bytes, remark, onProgress);
  if (!tracks.ok) return tracks;
  const every = tracks.value.flatMap(({ events }) => events);
  const tempos = every
    .flatMap((event) =>
      event.type === 'setTempo' ? [{ at: event.at, us: Math.max(1, event.microsecondsPerBeat) }] : [],
    )
    .sort((a, b) => a.at - b.at);
  const quarters = clockOf(bytes, tempos);
  const ticks = (at: number): number => ticksOfQuarters(quarters(at));
  const metres = every
    .flatMap((event) =>
      event.type === 'timeSignature' && event.numerator > 0 && event.denominator > 0
        ? [{ at: ticks(event.at), beats: event.numerator, unit: event.denominator }]
        : [],
    )
    .sort((a, b) => a.at - b.at);
  const last = ticks(every.reduce((so, { at }) => Math.max(so, at), 0));
  const bars = barsOf(metres, last);
  const parts: { name: string; string: number | null; open: number | null; notes: FileNote[] }[] = [];
  let many = 0;
  let drums = 0;
  for (const [i, track] of tracks.value.entries()) {
    onProgress?.(0.5 + i / tracks.value.length / 2);
    const channels = [
      ...new Set(track.events.flatMap((e) => ('channel' in e && e.type === 'noteOn' ? [e.channel] : []))),
    ].sort((a, b) => a - b);
    const named = track.events.find((e) => e.type === 'trackName');
    const name = named && 'text' in named ? textIn(named.text) : '';
    for (const channel of channels) {
      const struck = channelNotes(track, channel);
      many += struck.length;
      if (many > FILE_LIMITS.notes) return notesMany(many, { track: track.nth });
      if (channel === DRUMS) {
        drums += struck.length;
        continue;
      }
      if (!struck.length) continue;
      const of = STRING.exec(name);
      const open = of?.[2] ? parsePitch(of[2]) : null;
      const string = of && channels.length === 1 ? Number(of[1]) : null;
      const notes = notesOf(struck, {
        nth: track.nth,
        bars,
        ticks,
        last,
        tempos,
        string,
        open: open?.ok ? open.value : null,
        remark,
      });
      parts.push({
        name: (name || `Track ${track.nth}`) + (channels.length > 1 ? `, channel ${channel + 1}` : ''),
        string,
        open: open?.ok ? open.value : null,
        notes: [...notes],
      });
    }
  }
  if (drums) remark({ where: {}, said: `${drums} notes of drums are left out` });
  if (!parts.length) return refuseAt('midi.none', { byte: 0 }, 'there is no note in this file');
  const title = tracks.value[0]?.events.find((e) => e.type === 'trackName');
  const key = every.find((e) => e.type === 'keySignature');
  const [tempo] = tempos;
  if (tempos.length > 1)
    remark({ where: {}, said: 'the tempo changes: a phrase has one, that of its beginning' });
  return ok({
    title: (title && 'text' in title && textIn(title.text)) || null,
    tempo: tempo ? Math.round(6e9 / tempo.us) / 100 : null,
    key: key?.type === 'keySignature' ? { fifths: (key.key << 24) >> 24, minor: key.scale === 1 } : null,
    metre: metres[0] ?? null,
    bars,
    timed: true,
    parts: asInstruments(parts),
    remarks,
  });
}

/** Tracks of strings as one instrument, if there are two or more, or only such. */
function asInstruments(
  parts: readonly {
    readonly name: string;
    readonly string: number | null;
    readonly open: number | null;
    readonly notes: readonly FileNote[];
  }[],
): readonly FilePart[] {
  const strings = parts.filter(({ string }) => string !== null);
  const distinct = new Set(strings.map(({ string }) => string)).size === strings.length;
  const others = parts.filter((it) => !(distinct && it.string !== null));
  const single = others.map(({ name, notes }): FilePart => ({
    name,
    open: null,
    voices: [{ name: '', notes: inOrder(notes.map(({ string: _, fret: __, ...note }) => note)) }],
  }));
  if (!distinct || !strings.length) return single;
  return [
    {
      name: 'Strings',
      open: null,
      voices: [{ name: '', notes: inOrder(strings.flatMap(({ notes }) => notes)) }],
    },
    ...single,
  ];
}

interface Around {
  readonly nth: number;
  readonly bars: readonly FileBar[];
  readonly ticks: (at: number) => number;
  readonly last: number;
  readonly tempos: readonly { readonly at: number; readonly us: number }[];
  readonly string: number | null;
  readonly open: number | null;
  readonly remark: (it: Remark) => void;
}
function notesOf(
  struck: readonly Struck[],
  { nth, bars, ticks, last, tempos, string, open, remark }: Around,
): readonly FileNote[] {
  const loud = struck.map(({ velocity }) => velocity).sort((a, b) => a - b);
  // Named strings are louder as they are written here.
  const accent = open === null ? loud[Math.floor(loud.length / 2)]! + LOUDER : (LOUD.usual + LOUD.accent) / 2;
  return struck.map(({ midi, at, velocity, end, wheel }): FileNote => {
    const start = ticks(at);
    const length = Math.max(1, (end === null ? last : ticks(end)) - start);
    const where = { track: nth, bar: barAt(bars, start) };
    if (end === null) remark({ where, said: 'a note is never ended: it lasts to the end of the track' });
    const us = tempos.findLast((it) => it.at <= at)?.us ?? USUAL_TEMPO;
    const seconds = (t: number): number => (t / QUARTER) * (us / 1e6);
    const turns = wheel.map((it) => ({ at: ticks(it.at) - start, up: it.up })).filter((it) => it.at < length);
    const curve = turns.length
      ? steady(turns, length).map((it): Bent => ({ at: seconds(it.at), up: it.up }))
      : [];
    const { held, near } = curve.length ? heldOf(curve, seconds(length)) : { held: {}, near: true };
    if (!near)
      remark({ where, said: 'the string is bent in a way of its own: it is taken as the nearest bend' });
    return {
      midi,
      start,
      length,
      where,
      ...(string !== null && { string }),
      ...(string !== null && open !== null && { fret: midi - open }),
      ...held,
      ...(velocity >= accent && { accent: true as const }),
    };
  });
}
/** Places of the wheel that are looked at in one note at most. */
const LOOKS = 200;
/** How high a note is bent at even steps: the wheel stays where it is between two turns. */
function steady(
  turns: readonly { readonly at: number; readonly up: number }[],
  length: number,
): readonly { readonly at: number; readonly up: number }[] {
  const step = STEP * Math.max(1, Math.ceil(length / STEP / LOOKS));
  const even: { readonly at: number; readonly up: number }[] = [];
  let [i, up] = [0, 0];
  for (let at = step; at < length; at += step) {
    while (i < turns.length && turns[i]!.at <= at) up = turns[i++]!.up;
    even.push({ at, up });
  }
  return even;
}

/** Bars by the metres of a file, to its last tick. */
function barsOf(
  metres: readonly { readonly at: number; readonly beats: number; readonly unit: number }[],
  last: number,
): readonly FileBar[] {
  const bars: FileBar[] = [];
  let [at, next, metre] = [0, 0, { beats: 4, unit: 4 }];
  while (at < last || !bars.length) {
    while (next < metres.length && metres[next]!.at <= at) metre = metres[next++]!;
    const whole = Math.max(1, Math.round((metre.beats * 4 * QUARTER) / metre.unit));
    const length = Math.min(whole, Math.max(1, (metres[next]?.at ?? Infinity) - at));
    bars.push({ start: at, length });
    at += length;
    if (bars.length >= BARS) break;
  }
  return bars;
}
/** Bars that are counted at most: a file of nothing but silence has no end. */
const BARS = 20_000;

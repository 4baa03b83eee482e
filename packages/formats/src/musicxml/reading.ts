import { midiOf, parseNote } from '@crow-ladder/core';
import { type Bend, isBend, USUAL_VIBRATO } from '@crow-ladder/core/run';
import { type FileBar, type FilePiece, type Remark, ticksOfQuarters, type Where } from '../found.ts';
import { FILE_LIMITS } from '../named.ts';
import { begun, type Open, opened, type PartOpen } from './part.ts';
import { SLOW_BEND } from './write.ts';

/** No piece lasts longer, in quarter notes. */
const ENDLESS = 100_000;
const NAME = 120;
const UNITS: Readonly<Record<string, number>> = {
  whole: 4,
  half: 2,
  quarter: 1,
  eighth: 0.5,
  '16th': 0.25,
  '32nd': 0.125,
};

/** Everything that a score tells, as its elements open and close. */
export class Reading {
  title: string | null = null;
  private movement: string | null = null;
  private tempo: number | null = null;
  private key: FilePiece['key'] = null;
  private metre: FilePiece['metre'] = null;
  private readonly names = new Map<string, string>();
  readonly parts = new Map<string, PartOpen>();
  readonly remarks: Remark[] = [];
  notes = 0;
  tooMany: Where | null = null;
  isScore = false;
  private part: PartOpen | null = null;
  private scorePart = '';
  private note: Open | null = null;
  private clef = { staff: 1, sign: '' };
  private details = { staff: 1, line: 0, step: '', alter: 0 };
  private beat = { unit: 1, dots: 0 };
  private fifths = 0;
  private isMinor = false;
  private beats = 0;
  private transpose = { chromatic: 0, octaves: 0 };
  private barLength = 4;
  private isTimewise = false;
  private readonly where: () => Where;
  constructor(where: () => Where) {
    this.where = where;
  }

  private remark(said: string): void {
    const bar = this.part?.nth;
    this.remarks.push({ where: bar ? { bar, ...this.where() } : this.where(), said });
  }
  private beginBar(part: PartOpen): void {
    part.nth++;
    part.cursor = part.reached = part.last = part.barStart;
  }
  private endBar(part: PartOpen): void {
    if (part.reached === part.barStart) part.reached = part.barStart + this.barLength;
    const start = ticksOfQuarters(part.barStart);
    part.bars.push({ start, length: ticksOfQuarters(part.reached) - start });
    part.barStart = part.reached;
  }

  open(name: string, attributes: Readonly<Record<string, string>>, parent: string): void {
    const { note, part } = this;
    const isStart = attributes['type'] === 'start';
    const isStop = attributes['type'] === 'stop';
    switch (name) {
      case 'score-partwise':
      case 'score-timewise':
        this.isScore = true;
        this.isTimewise = name === 'score-timewise';
        break;
      case 'score-part':
        this.scorePart = attributes['id'] ?? '';
        break;
      case 'part': {
        const id = attributes['id'] ?? '';
        const known = this.parts.get(id) ?? begun(this.names.get(id) ?? '');
        this.parts.set(id, known);
        this.part = known;
        if (this.isTimewise) this.beginBar(known);
        break;
      }
      case 'measure':
        if (part && !this.isTimewise) this.beginBar(part);
        break;
      case 'note':
        this.note = opened();
        break;
      case 'clef':
        this.clef = { staff: Number(attributes['number'] ?? 1), sign: '' };
        break;
      case 'staff-details':
        this.details = { staff: Number(attributes['number'] ?? 1), line: 0, step: '', alter: 0 };
        break;
      case 'staff-tuning':
        this.details = { ...this.details, line: Number(attributes['line']), alter: 0 };
        break;
      case 'transpose':
        this.transpose = { chromatic: 0, octaves: 0 };
        break;
      case 'metronome':
        this.beat = { unit: 1, dots: 0 };
        break;
      case 'beat-unit-dot':
        this.beat.dots++;
        break;
      case 'key':
        this.isMinor = false;
        break;
      case 'sound':
        if (attributes['tempo']) this.tempoIs(Number(attributes['tempo']));
        break;
      case 'repeat':
        this.remark('what is repeated is written once');
        break;
    }
    if (!note) return;
    switch (name) {
      case 'grace':
        note.skipped = 'a grace note is left out';
        break;
      case 'cue':
        note.skipped = 'a cue is left out';
        break;
      case 'unpitched':
        note.skipped = 'a note without a pitch is left out';
        break;
      case 'rest':
        note.rest = true;
        break;
      case 'chord':
        note.chord = true;
        break;
      case 'tie':
      case 'tied':
        note.tieStart ||= isStart;
        note.tieStop ||= isStop;
        break;
      case 'slur':
        note.slurs += isStart ? 1 : 0;
        note.slurStops += isStop ? 1 : 0;
        break;
      case 'hammer-on':
      case 'pull-off':
        if (isStop) note.join = 'slur';
        break;
      case 'slide':
      case 'glissando':
        if (isStop) note.join ??= 'slide';
        break;
      case 'tap':
        if (parent === 'technical') note.join = 'tap';
        break;
      case 'bend':
        note.slow ||= Number(attributes['last-beat'] ?? 0) >= SLOW_BEND - 1;
        break;
      case 'release':
        note.released = true;
        break;
      case 'wavy-line':
        note.vibrato = true;
        break;
      case 'accent':
        note.accent = true;
        break;
    }
  }

  private tempoIs(tempo: number): void {
    if (tempo > 0 && tempo < 1000) this.tempo ??= Math.round(tempo * 100) / 100;
  }

  close(name: string, text: string, parent: string): void {
    const { note, part } = this;
    const number = Number(text);
    const first = this.parts.values().next().value;
    switch (name) {
      case 'work-title':
        this.title = text.slice(0, NAME) || null;
        break;
      case 'movement-title':
        this.movement = text.slice(0, NAME) || null;
        break;
      case 'part-name':
        if (parent === 'score-part') this.names.set(this.scorePart, text.slice(0, NAME));
        break;
      case 'part':
        if (part && this.isTimewise) this.endBar(part);
        this.part = null;
        break;
      case 'measure':
        if (part && !this.isTimewise) this.endBar(part);
        break;
      case 'divisions':
        if (part && number > 0) part.divisions = number;
        break;
      case 'fifths':
        this.fifths = number;
        break;
      case 'mode':
        this.isMinor = text === 'minor';
        break;
      case 'key':
        if (part === first && Math.abs(this.fifths) <= 7)
          this.key ??= { fifths: this.fifths, minor: this.isMinor };
        break;
      case 'beats':
        this.beats = text.split('+').reduce((sum, it) => sum + Number(it), 0);
        break;
      case 'beat-type':
        if (this.beats > 0 && this.beats < 100 && number > 0) {
          this.barLength = (this.beats * 4) / number;
          if (part === first) this.metre ??= { beats: this.beats, unit: number };
        }
        break;
      case 'sign':
        this.clef.sign = text;
        break;
      case 'clef':
        if (this.clef.sign === 'TAB') part?.tab.add(this.clef.staff);
        break;
      case 'tuning-step':
        this.details.step = text;
        break;
      case 'tuning-alter':
        this.details.alter = number;
        break;
      case 'tuning-octave': {
        const read = parseNote(this.details.step);
        if (read.ok && Number.isInteger(number))
          part?.strings.set(this.details.line, midiOf(read.value, number) + this.details.alter);
        break;
      }
      case 'capo':
        if (part && number >= 0 && number <= 24) part.capo = number;
        break;
      case 'chromatic':
        this.transpose.chromatic = number;
        break;
      case 'octave-change':
        this.transpose.octaves = number;
        break;
      case 'transpose':
        if (part) part.transpose = this.transpose.chromatic + 12 * this.transpose.octaves;
        break;
      case 'beat-unit':
        this.beat.unit = UNITS[text] ?? 1;
        break;
      case 'per-minute':
        this.tempoIs(number * this.beat.unit * (2 - 0.5 ** this.beat.dots));
        break;
      case 'note':
        if (note && part) this.noteEnds(part, note);
        this.note = null;
        break;
      case 'duration':
        if (note) note.duration = number;
        else if (part && Number.isFinite(number) && number >= 0) {
          const by = number / part.divisions;
          part.cursor =
            parent === 'backup'
              ? Math.max(part.barStart, part.cursor - by)
              : Math.min(part.cursor + by, ENDLESS);
          part.reached = Math.max(part.reached, part.cursor);
        }
        break;
    }
    if (!note) return;
    switch (name) {
      case 'step':
        note.step = text;
        break;
      case 'alter':
        note.alter = number;
        break;
      case 'octave':
        note.octave = number;
        break;
      case 'voice':
        note.voice = text.slice(0, 20);
        break;
      case 'staff':
        note.staff = number;
        break;
      case 'string':
        note.string = number;
        break;
      case 'fret':
        note.fret = number;
        break;
      case 'fingering':
        if (number >= 1 && number <= 4) note.finger ??= number;
        break;
      case 'bend-alter':
        if (number > 0) note.bend ??= number;
        else note.released = true;
        break;
    }
  }

  /** How a note is bent, as far as that can be played. */
  private bent({ bend, slow, released }: Open): Bend | undefined {
    if (bend === null) {
      if (released) this.remark('a string that is bent before it is struck is taken as the plain note');
      return undefined;
    }
    const by = Math.round(bend * 2) / 2;
    if (isBend(by)) return { by, how: slow ? 'slowly' : 'once', released };
    this.remark(`a bend by ${bend} half steps is left out: a quarter tone to three half steps can be played`);
    return undefined;
  }

  private noteEnds(part: PartOpen, it: Open): void {
    if (it.skipped) {
      this.remark(it.skipped);
      if (it.skipped.startsWith('a grace')) return;
    }
    const length = it.duration / part.divisions;
    if (!Number.isFinite(length) || length <= 0 || part.cursor + length > ENDLESS) {
      this.remark('a note without a length that can be played is left out');
      return;
    }
    const at = it.chord ? part.last : part.cursor;
    if (!it.chord) {
      part.last = part.cursor;
      part.cursor += length;
      part.reached = Math.max(part.reached, part.cursor);
    }
    if (it.rest || it.skipped) return;
    const read = parseNote(it.step);
    const midi =
      read.ok && it.octave !== null
        ? midiOf(read.value, it.octave) + Math.round(it.alter) + part.transpose
        : NaN;
    if (!Number.isInteger(midi) || midi < 0 || midi > 127) {
      this.remark('a note without a pitch that can be heard is left out');
      return;
    }
    if (it.alter % 1) this.remark('a quarter tone is taken as the nearest half step');
    if (++this.notes > FILE_LIMITS.notes) {
      this.tooMany ??= { bar: part.nth, ...this.where() };
      return;
    }
    const id = `${it.staff}/${it.voice}`;
    const voice = part.voices.get(id) ?? {
      staff: it.staff,
      name: it.voice,
      notes: [],
      ties: new Map<number, number>(),
      slurs: 0,
    };
    part.voices.set(id, voice);
    const start = ticksOfQuarters(at);
    const end = ticksOfQuarters(at + length);
    const before = it.tieStop ? voice.ties.get(midi) : undefined;
    const tied = before === undefined ? undefined : voice.notes[before];
    const slurred = voice.slurs > 0 ? ('slur' as const) : undefined;
    if (!it.chord) voice.slurs = Math.max(0, voice.slurs + it.slurs - it.slurStops);
    voice.ties.delete(midi);
    if (tied && tied.start + tied.length === start) {
      voice.notes[before!] = { ...tied, length: end - tied.start };
      if (it.tieStart) voice.ties.set(midi, before!);
      return;
    }
    if (it.tieStart) voice.ties.set(midi, voice.notes.length);
    const joined = it.join ?? slurred;
    const bend = this.bent(it);
    const isPlace = Number.isInteger(it.string) && it.string! > 0;
    const isFret = Number.isInteger(it.fret) && it.fret! >= 0;
    voice.notes.push({
      midi,
      start,
      length: Math.max(1, end - start),
      where: { bar: part.nth, ...this.where() },
      ...(isPlace && { string: it.string }),
      ...(isPlace && isFret && { fret: it.fret }),
      ...(it.finger !== undefined && { finger: it.finger }),
      ...(joined && { joined }),
      ...(bend && { bend }),
      ...(it.vibrato && { vibrato: USUAL_VIBRATO }),
      ...(it.accent && { accent: true as const }),
    });
  }

  piece(): FilePiece {
    const bars = [...this.parts.values()].reduce<readonly FileBar[]>(
      (most, { bars: it }) => (it.length > most.length ? it : most),
      [],
    );
    return { title: this.title ?? this.movement, tempo: this.tempo, key: this.key, metre: this.metre, bars };
  }
}

/**
 * What is written, read by programs that this project did not write: midicsv 1.1 and midifile 2 (Standard MIDI), xmllint (XML), musicxml-io
 * (MusicXML: its own parser and its checks of bars, ties, beams, tuplets), verovio 6.3 (an engraver that knows tablature), abc2midi (ABC).
 */
import { mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { QUARTER, type Step } from '@crow-ladder/core/run';
import MidiFile from 'midifile';
import { parse, validate } from 'musicxml-io';
import verovio from 'verovio';
import { drawn } from '../../../scripts/thorough.ts';
import { FORMATS, type Music } from '../src/index.ts';
import { asked, musicOf } from './helpers.ts';

const format = (kind: string) => FORMATS.find((it) => it.kind === kind)!;
const MANY = drawn(3000);
const all: readonly Music[] = Array.from({ length: MANY }, (_, i) => musicOf(7919 * i + 1));
let folder = '';
beforeAll(() => (folder = mkdtempSync(join(tmpdir(), 'formats-'))));
afterAll(() => rmSync(folder, { recursive: true }));

interface Heard {
  readonly midi: number;
  readonly start: number;
  readonly end: number;
}
const inTime = (notes: readonly Heard[]): readonly Heard[] =>
  [...notes].sort((a, b) => a.start - b.start || a.midi - b.midi);
const heard = (run: readonly Step[]): readonly Heard[] =>
  inTime(run.map(({ spot, start, length }) => ({ midi: spot.midi, start, end: start + length })));

/** Notes of a MIDI file as midicsv tells them, in ticks of 960. */
function csvNotes(csv: string): readonly (Heard & { readonly channel: number; readonly up: number })[] {
  const notes: (Heard & { channel: number; up: number })[] = [];
  const open = new Map<string, { midi: number; start: number; channel: number; up: number }>();
  let scale = 1;
  const range = new Map<number, number>();
  for (const line of csv.split('\n')) {
    const [, tick, type, ...rest] = line.split(',').map((it) => it.trim());
    const [channel = 0, value = 0, more = 0] = rest.map(Number);
    if (type === 'Header') scale = QUARTER / more;
    if (type === 'Control_c' && value === 6) range.set(channel, more);
    const key = `${channel} ${value}`;
    const at = Math.round(Number(tick) * scale);
    if (type === 'Note_on_c' && more > 0) open.set(key, { midi: value, start: at, channel, up: 0 });
    else if (type === 'Note_off_c' || type === 'Note_on_c') {
      const note = open.get(key);
      if (note) notes.push({ ...note, end: at });
      open.delete(key);
    } else if (type === 'Pitch_bend_c')
      for (const note of open.values())
        if (note.channel === channel)
          note.up = Math.max(note.up, ((value - 8192) / 8192) * (range.get(channel) ?? 2));
  }
  return notes;
}

test('midicsv hears the notes of a MIDI file, on the channel of their string, and how far they are bent', () => {
  let bends = 0;
  for (const music of all) {
    const csv = csvNotes(asked('midicsv', ['-'], format('midi').write(music).bytes));
    expect(inTime(csv.map(({ midi, start, end }) => ({ midi, start, end })))).toEqual(heard(music.run));
    for (const { spot, start, length, bend } of music.run) {
      const it = csv.find((note) => note.start === start && note.midi === spot.midi)!;
      expect(it.channel).toBe(spot.string - 1);
      if (!bend || length < QUARTER / 4) continue;
      expect(Math.abs(it.up - bend.by)).toBeLessThan(0.05);
      bends++;
    }
  }
  expect(bends).toBeGreaterThan(drawn(1000));
});

test('midifile reads its metre, key and tempo', () => {
  for (const music of all.slice(0, drawn(500))) {
    const events = new MidiFile(format('midi').write(music).bytes).getTrackEvents(0) as readonly {
      readonly subtype?: number;
      readonly tempo?: number;
      readonly param1?: number;
    }[];
    const of = (subtype: number) => events.find((it) => it.subtype === subtype);
    expect(Math.round(6e7 / of(0x51)!.tempo!)).toBe(music.tempo);
    expect(of(0x58)!.param1).toBe(music.beats);
    expect(of(0x59)).toBeDefined();
  }
});

/** A step of a note as MusicXML tells it. */
const NATURAL: Readonly<Record<string, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };

test('a MusicXML score is well formed and valid, and says the same strings, frets, fingers, slurs, slides and bends', () => {
  const files = all.map((music, i) => {
    const path = join(folder, `${i}.musicxml`);
    writeFileSync(path, format('musicxml').write(music).bytes);
    return path;
  });
  expect(asked('xmllint', ['--noout', '--nonet', ...files])).toBe('');
  for (const [i, music] of all.entries()) {
    const score = parse(readFileSync(files[i]!, 'utf8'));
    expect(validate(score).errors).toEqual([]);
    const notes = score.parts[0]!.measures.flatMap(({ entries }) =>
      entries.flatMap((it) => (it.type === 'note' && it.staff === 2 && it.pitch ? [it] : [])),
    );
    const first = notes.filter(
      ({ tie, ties }) => !(ties ?? (tie ? [tie] : [])).some(({ type }) => type === 'stop'),
    );
    expect(first).toHaveLength(music.run.length);
    music.run.forEach((step, n) => {
      const note = first[n]!;
      const { pitch } = note;
      const told = new Map(
        (note.notations ?? []).flatMap((it): readonly (readonly [string, Record<string, unknown>])[] =>
          it.type === 'technical'
            ? [[`${it.technical}${'startStop' in it && it.startStop ? ` ${it.startStop}` : ''}`, it as never]]
            : it.type === 'slide'
              ? [[`slide ${it.slideType}`, it as never]]
              : [],
        ),
      );
      expect(NATURAL[pitch!.step]! + (pitch!.alter ?? 0) + 12 * pitch!.octave).toBe(step.spot.midi);
      expect(told.get('string')).toMatchObject({ string: step.spot.string });
      expect(told.get('fret')).toMatchObject({ fret: step.spot.fret });
      expect(told.has('fingering')).toBe(step.finger >= 1 && step.finger <= 4);
      expect(told.has('hammer-on stop')).toBe(step.arrive === 'hammer');
      expect(told.has('pull-off stop')).toBe(step.arrive === 'pull');
      expect(told.has('slide stop')).toBe(step.arrive === 'slide');
      expect(told.has('tap')).toBe(step.arrive === 'tap');
      expect(told.has('bend')).toBe(step.bend !== undefined);
    });
  }
});

test('an engraver draws each fret of a MusicXML score on its string, and plays its notes', async () => {
  const toolkit = await new Promise<InstanceType<typeof verovio.toolkit>>((done) => {
    const make = (): void => done(new verovio.toolkit());
    if ((verovio.module as { calledRun?: boolean }).calledRun) make();
    else verovio.module.onRuntimeInitialized = make;
  });
  // It has no sign for a tap in tablature, and says so each time.
  verovio.enableLog(verovio.LOG_OFF, verovio.module);
  toolkit.setOptions({ pageHeight: 60_000, breaks: 'none', header: 'none' });
  for (const music of all.slice(0, drawn(400))) {
    expect(toolkit.loadData(Buffer.from(format('musicxml').write(music).bytes).toString())).toBeTruthy();
    const played = csvNotes(asked('midicsv', ['-'], Buffer.from(toolkit.renderToMIDI(), 'base64')));
    // It counts 120 ticks a quarter note, and strikes again what is tied in tablature.
    const missing = heard(music.run).filter(
      ({ midi, start }) => !played.some((it) => it.midi === midi && Math.abs(it.start - start) < 12),
    );
    expect(missing).toEqual([]);
    const frets = [
      ...toolkit
        .renderToSVG(1)
        .matchAll(/class="note">\s*<text x="\d+" y="(\d+)"[^>]*>\s*<tspan[^>]*>(\d+)<\/tspan>/gu),
    ].map(([, y, fret]) => ({ y: Number(y), fret: Number(fret) }));
    const spots = music.run.map(({ spot }) => spot);
    expect(frets.map(({ fret }) => fret)).toEqual(spots.map(({ fret }) => fret));
    // Its lines of tablature are 314 units apart.
    expect(frets.map(({ y }) => Math.round((y - frets[0]!.y) / 314))).toEqual(
      spots.map(({ string }) => string - spots[0]!.string),
    );
  }
});

test('abc2midi plays the notes of ABC notation', () => {
  const book = all.map((music, i) =>
    Buffer.from(format('abc').write(music).bytes)
      .toString()
      .replace('%abc-2.1\nX:1\n', `X:${i + 1}\n`),
  );
  const path = join(folder, 'book.abc');
  writeFileSync(path, `%abc-2.1\n${book.join('\n\n')}`);
  asked('abc2midi', [path, '-quiet', '-silent']);
  const files = readdirSync(folder).filter((it) => it.endsWith('.mid'));
  expect(files).toHaveLength(MANY);
  for (const [i, music] of all.entries()) {
    const csv = csvNotes(asked('midicsv', [join(folder, `book${i + 1}.mid`)]));
    const want = heard(music.run);
    // It counts 480 ticks a quarter note, rounds what it ties, and lets a note end a tick early.
    expect(inTime(csv).map(({ midi }) => midi)).toEqual(want.map(({ midi }) => midi));
    inTime(csv).forEach((note, n) => expect(Math.abs(note.start - want[n]!.start)).toBeLessThan(10));
  }
});

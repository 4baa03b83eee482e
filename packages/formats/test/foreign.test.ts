/** What other programs write and this one does not: worked by hand from the standards (RP-001, MusicXML 4.0, ABC 2.1), common practice for text. */
import { zipSync } from 'fflate';
import { type MidiEvent, writeMidi } from 'midi-file';
import { QUARTER } from '@crow-ladder/core/run';
import { bytesOf } from '../src/bytes.ts';
import { type FileRead, readFile } from '../src/index.ts';
import { notesIn, right } from './helpers.ts';

const read = (name: string, bytes: Uint8Array | string): FileRead =>
  right(readFile(name, typeof bytes === 'string' ? bytesOf(bytes) : bytes));
/** Notes as MIDI number, beginning and length in quarter notes. */
const told = (file: FileRead): string =>
  notesIn(file)
    .map(({ midi, start, length }) => `${midi}@${start / QUARTER}+${length / QUARTER}`)
    .join(' ');
const saidIn = ({ remarks }: FileRead): string => remarks.map(({ said }) => said).join('; ');

describe('MIDI', () => {
  const on = (deltaTime: number, channel: number, noteNumber: number, velocity = 80): MidiEvent => ({
    deltaTime,
    type: 'noteOn',
    channel,
    noteNumber,
    velocity,
  });
  const file = (ticksPerBeat: number, ...tracks: MidiEvent[][]): Uint8Array =>
    Uint8Array.from(writeMidi({ header: { format: 1, numTracks: tracks.length, ticksPerBeat }, tracks }));
  const end: MidiEvent = { deltaTime: 0, type: 'endOfTrack', meta: true };

  test('drums are left out; a note struck softly as nothing is its end; a last one without an end lasts to the end of its track', () => {
    const it = read(
      'a.mid',
      file(96, [
        on(0, 0, 60),
        on(0, 9, 36),
        on(96, 0, 60, 0),
        on(0, 9, 36, 0),
        on(0, 0, 62),
        { ...end, deltaTime: 48 },
      ]),
    );
    expect(told(it)).toBe('60@0+1 62@1+0.5');
    expect(saidIn(it)).toMatch(/never ended.*1 notes? of drums/u);
  });

  test('clocks in frames a second become quarter notes by the tempo', () => {
    const bytes = file(96, [
      { deltaTime: 0, type: 'setTempo', meta: true, microsecondsPerBeat: 500_000 },
      on(0, 0, 60),
      on(1000, 0, 60, 0),
      end,
    ]);
    // 25 frames a second of 40 ticks: 1000 ticks are a second, two quarter notes at 120.
    bytes.set([256 - 25, 40], 12);
    expect(told(read('a.mid', bytes))).toBe('60@0+2');
  });

  test('a track that is cut off, one that is announced and missing, and chunks of another kind', () => {
    const whole = file(96, [on(0, 0, 60), on(96, 0, 60, 0), on(0, 0, 62), on(96, 0, 62, 0), end]);
    const odd = Uint8Array.from([
      ...whole.subarray(0, 14),
      0x58,
      0x58,
      0x58,
      0x58,
      0,
      0,
      0,
      2,
      1,
      2,
      ...whole.subarray(14),
    ]);
    expect(told(read('a.mid', odd))).toBe('60@0+1 62@1+1');
    expect(saidIn(read('a.mid', whole.subarray(0, whole.length - 8)))).toContain(
      'the file ends before the track does',
    );
  });

  test('the wheel of two half steps, as it is at first, bends; metres cut bars', () => {
    const wheel = (deltaTime: number, value: number): MidiEvent => ({
      deltaTime,
      type: 'pitchBend',
      channel: 0,
      value,
    });
    const metre = (deltaTime: number, numerator: number): MidiEvent => ({
      deltaTime,
      type: 'timeSignature',
      meta: true,
      numerator,
      denominator: 4,
      metronome: 24,
      thirtyseconds: 8,
    });
    const it = read(
      'a.mid',
      file(480, [
        metre(0, 3),
        on(0, 0, 60),
        wheel(24, 8191),
        wheel(900, 0),
        on(36, 0, 60, 0),
        metre(480, 2),
        { ...end, deltaTime: 960 },
      ]),
    );
    expect(notesIn(it)[0]).toMatchObject({ bend: { by: 2, how: 'once' } });
    expect(it.bars.map(({ length }) => length / QUARTER)).toEqual([3, 2]);
  });
});

describe('MusicXML', () => {
  const pitch = (step: string, octave: number, alter = ''): string =>
    `<pitch><step>${step}</step>${alter && `<alter>${alter}</alter>`}<octave>${octave}</octave></pitch>`;
  const note = (inside: string, duration: number, more = ''): string =>
    `<note>${inside}<duration>${duration}</duration><voice>1</voice>${more}</note>`;
  const score = (...measures: string[]): string =>
    `<?xml version="1.0" encoding="UTF-8"?><score-partwise><part-list><score-part id="P1"><part-name>Lead</part-name></score-part></part-list><part id="P1">${measures
      .map(
        (it, i) =>
          `<measure number="${i + 1}">${i === 0 ? '<attributes><divisions>2</divisions><time><beats>2</beats><beat-type>4</beat-type></time></attributes>' : ''}${it}</measure>`,
      )
      .join('')}</part></score-partwise>`;

  test('chords begin together, a voice goes back, grace notes and cues are left out', () => {
    const it = read(
      'a.musicxml',
      score(
        note(pitch('C', 4), 2) +
          note(`<chord/>${pitch('E', 4)}`, 2) +
          `<note><grace/>${pitch('A', 4)}<voice>1</voice></note>` +
          note(pitch('G', 4), 2) +
          '<backup><duration>4</duration></backup>' +
          `<forward><duration>2</duration></forward><note>${pitch('C', 3)}<duration>2</duration><voice>2</voice></note>`,
        `<note><cue/>${pitch('B', 4)}<duration>2</duration><voice>1</voice></note>${note(pitch('F', 4, '1'), 2)}`,
      ),
    );
    expect(told(it)).toBe('64@0+1 60@0+1 67@1+1 48@1+1 66@3+1');
    expect(it.parts[0]!.voices.map(({ notes }) => notes.length)).toEqual([4, 1]);
    expect(saidIn(it)).toBe('a grace note is left out; a cue is left out');
  });

  test('ties over bar lines are one note, instruments that sound elsewhere are brought there, an empty bar is a whole one', () => {
    const tie = (type: string): string => `<tie type="${type}"/>`;
    const it = read(
      'a.xml',
      score(
        `<attributes><transpose><chromatic>-2</chromatic></transpose></attributes>${note(pitch('D', 4), 4, tie('start'))}`,
        note(pitch('D', 4), 2, tie('stop')) + note('<rest/>', 2),
        '',
        note(pitch('D', 4), 2),
      ),
    );
    expect(told(it)).toBe('60@0+3 60@6+1');
    expect(it.bars.map(({ start }) => start / QUARTER)).toEqual([0, 2, 4, 6]);
  });

  test('in a container, in UTF-16, by bars', () => {
    const plain = score(note(pitch('A', 4), 4));
    const file = (text: string): Uint8Array => Uint8Array.from(Buffer.from(text));
    const container = '<container><rootfiles><rootfile full-path="music/a.xml"/></rootfiles></container>';
    const zipped = zipSync({ 'META-INF/container.xml': file(container), 'music/a.xml': file(plain) });
    expect(told(read('a.mxl', zipped))).toBe('69@0+2');
    expect(readFile('a.mxl', zipSync({ 'a.xml': file(plain) }))).toMatchObject({
      error: { code: 'xml.container' },
    });
    expect(told(read('a.xml', Uint8Array.from(Buffer.from(`\uFEFF${plain}`, 'utf16le'))))).toBe('69@0+2');
    const [, head, measure] = /^(.*)<part id="P1">(.*)<\/part>/su.exec(plain)!;
    const timewise = `${head!.replace('score-partwise', 'score-timewise')}${measure!.replace(/(<measure[^>]*>)(.*)(<\/measure>)/su, '$1<part id="P1">$2</part>$3')}</score-timewise>`;
    expect(told(read('a.xml', timewise))).toBe('69@0+2');
  });
});

describe('ABC', () => {
  const tune = (body: string, head = 'M:4/4\nL:1/4\nK:C'): string => `X:1\nT:a\n${head}\n${body}\n`;
  test('accidentals hold for their letter to the end of the bar, a tie takes one over it, a clef may lie an octave lower', () => {
    expect(told(read('a.abc', tune('^F F f2 | F2 ^c2- | c2 c2 |')))).toBe(
      '66@0+1 66@1+1 78@2+2 65@4+2 73@6+4 72@10+2',
    );
    expect(told(read('a.abc', tune('A4 |', 'M:4/4\nL:1/4\nK:Am clef=treble-8')))).toBe('57@0+4');
  });
  test('voices, an overlay, rests of many bars, tuplets of other numbers, grace notes', () => {
    const it = read('a.abc', tune('V:1\nc2 {g}d2 | e4 |\nV:2\nC4 & G4 | Z1 |'));
    expect(it.parts.map(({ voices }) => voices[0]!.notes.length)).toEqual([3, 1, 1]);
    expect(saidIn(it)).toContain('grace notes are left out');
    expect(told(read('a.abc', tune('(3:2:4c2cc/c/ (5cdefg')))).toMatch(/^72@0\+1\.33.*72@1\.33/u);
  });
  test('a book has its tunes one after the other, what stands before them holding for all', () => {
    const it = read(
      'a.abc',
      `%abc-2.1\nM:3/4\nL:1/8\n\nX:4\nT:One\nK:G\nF2|\n\nwords\n\nX:2\nT:Two\nK:C\nL:1/4\nF|\n`,
    );
    expect(it.parts.map(({ name, piece }) => [name, piece?.metre?.beats])).toEqual([
      ['One', 3],
      ['Two', 3],
    ]);
    expect(told(it)).toBe('66@0+1 65@0+1');
  });
});

describe('text', () => {
  const lines = (frets: string): string =>
    ['e', 'B', 'G', 'D', 'A', 'E']
      .map((name, i) => `${name}|${i === 1 ? frets : '-'.repeat(frets.length)}|`)
      .join('\n');
  test('systems without an empty line between them, tabulators, remarks behind the bar, an older encoding', () => {
    const it = read('a.txt', `${lines('-5-7-')}\n${lines('-8-5-')}`);
    expect(notesIn(it).map(({ fret }) => fret)).toEqual([5, 7, 8, 5]);
    // A tabulator is as wide as it shows: the 6 lies between.
    const tabbed = 'e|-5\t7-|\nB|----6----|\nG|-|\nD|-|\nA|-|\nE|-|';
    expect(notesIn(read('a.txt', tabbed)).map(({ fret }) => fret)).toEqual([5, 6, 7]);
    expect(notesIn(read('a.txt', lines('-5-').replace('-5-|', '-5-|  x2 slowly')))).toHaveLength(1);
    const old = Uint8Array.from(Buffer.from(`Prüfung\n${lines('-5-')}`, 'latin1'));
    expect(read('a.txt', old).title).toBe('Prüfung');
  });
});

import fc from 'fast-check';
import { drawn } from '../../../scripts/thorough.ts';
import { type FileNote, FORMATS, type FormatOf, type Music, readFile } from '../src/index.ts';
import { again, anyMusic, musicOf, notesIn, right, told } from './helpers.ts';

/** What each format carries of a note. */
const CARRIES: Readonly<Record<string, readonly (keyof FileNote)[]>> = {
  text: ['midi', 'start', 'length', 'string', 'fret', 'finger', 'joined', 'bend', 'vibrato', 'accent'],
  musicxml: ['midi', 'start', 'length', 'string', 'fret', 'finger', 'joined', 'bend', 'vibrato', 'accent'],
  midi: ['midi', 'start', 'length', 'string', 'fret', 'bend', 'accent'],
  abc: ['midi', 'start', 'length', 'finger', 'accent'],
};
const only = (notes: readonly Omit<FileNote, 'where'>[], keys: readonly (keyof FileNote)[]) =>
  notes.map((it) => Object.fromEntries(keys.map((key) => [key, (it as FileNote)[key]])));
const named = (format: FormatOf): string => format.kind;

describe.each(FORMATS.map((format) => [named(format), format] as const))('%s', (kind, format) => {
  const keys = CARRIES[kind]!;

  test('what is written is read back, note by note', () => {
    const met = { bends: 0, slurs: 0, tuplets: 0, strings: new Set<number>() };
    fc.assert(
      fc.property(anyMusic, (music) => {
        const read = right(format.read(format.write(music).bytes));
        expect(only(notesIn(read), keys)).toEqual(only(music.run.map(told), keys));
        met.bends += music.run.filter(({ bend }) => bend).length;
        met.slurs += music.run.filter(({ arrive }) => arrive !== 'pick').length;
        met.tuplets += music.run.filter(({ length }) => length % 120 !== 0).length;
        met.strings.add(music.neck.open.length);
      }),
      { numRuns: drawn(3000) },
    );
    expect(met.bends).toBeGreaterThan(drawn(1000));
    expect(met.slurs).toBeGreaterThan(drawn(1000));
    expect(met.tuplets).toBeGreaterThan(drawn(1000));
    expect([...met.strings].sort()).toEqual([4, 5, 6, 7, 8, 9]);
  });

  test('what was read and is written again is the same bytes', () => {
    fc.assert(
      fc.property(anyMusic, (music) => {
        const { bytes } = format.write(music);
        const once = again(music, right(format.read(bytes)));
        expect(Buffer.from(format.write(once).bytes).toString('latin1')).toBe(
          Buffer.from(bytes).toString('latin1'),
        );
      }),
      { numRuns: drawn(3000) },
    );
  });

  test('a file is known for what it is, whatever it is called', () => {
    const music: Music = musicOf(7);
    const { bytes } = format.write(music);
    const read = right(readFile('a.txt', bytes));
    expect(notesIn(read).map(({ midi }) => midi)).toEqual(music.run.map(({ spot }) => spot.midi));
    expect(read.title).toBe(music.title.replace('%', ' '));
    expect(read.tempo).toBe(music.tempo);
  });
});

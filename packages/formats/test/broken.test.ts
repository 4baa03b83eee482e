import { spawnSync } from 'node:child_process';
import { join } from 'node:path';
import { drawn } from '../../../scripts/thorough.ts';
import { seeded } from '@crow-ladder/core';
import { QUARTER } from '@crow-ladder/core/run';
import { FORMATS, type FormatOf, lastBar, readFile, taken } from '../src/index.ts';
import { bytesOf } from '../src/bytes.ts';
import { musicOf, notesIn } from './helpers.ts';

/** Ways to break a file: what was good, and chance. */
type Breaks = (bytes: Uint8Array, random: () => number) => Uint8Array;
const at = (bytes: Uint8Array, random: () => number): number => Math.floor(random() * bytes.length);
const joined = (...parts: readonly Uint8Array[]): Uint8Array =>
  Uint8Array.from(parts.flatMap((it) => [...it]));
const inText =
  (change: (text: string, random: () => number) => string): Breaks =>
  (bytes, random) =>
    Uint8Array.from(Buffer.from(change(Buffer.from(bytes).toString('latin1'), random), 'latin1'));
const HUGE = ['99999999999999999999', '-1', '1e308', 'NaN', '0', '0.0000001', '٣', ''];
const BREAKS: Readonly<Record<string, Breaks>> = {
  cut: (bytes, random) => bytes.slice(0, at(bytes, random)),
  'its middle gone': (bytes, random) => {
    const from = at(bytes, random);
    return joined(bytes.slice(0, from), bytes.slice(from + Math.floor(random() * 200)));
  },
  'a stretch doubled': (bytes, random) => {
    const from = at(bytes, random);
    const to = Math.min(bytes.length, from + Math.floor(random() * 400));
    return joined(bytes.slice(0, to), bytes.slice(from));
  },
  'bytes swapped': (bytes, random) => {
    const out = Uint8Array.from(bytes);
    for (let n = 0; n < 6; n++) {
      const [a, b] = [at(bytes, random), at(bytes, random)];
      [out[a], out[b]] = [out[b]!, out[a]!];
    }
    return out;
  },
  'bytes by chance': (bytes, random) => {
    const out = Uint8Array.from(bytes);
    for (let n = 0; n < 1 + random() * 12; n++) out[at(bytes, random)] = Math.floor(random() * 256);
    return out;
  },
  'a huge number': inText((text, random) => {
    const numbers = [...text.matchAll(/\d+/gu)];
    const it = numbers[Math.floor(random() * numbers.length)];
    const huge = HUGE[Math.floor(random() * HUGE.length)]!;
    return it ? text.slice(0, it.index) + huge + text.slice(it.index + it[0].length) : text;
  }),
  'a line repeated': inText((text, random) => {
    const lines = text.split('\n');
    const n = Math.floor(random() * lines.length);
    return [...lines.slice(0, n), ...Array<string>(20).fill(lines[n]!), ...lines.slice(n)].join('\n');
  }),
  nested: inText((text, random) => {
    const n = Math.floor(random() * text.length);
    const [open, shut] = [
      ['<a>', '</a>'],
      ['(', ')'],
      ['[', ']'],
      ['{', '}'],
      ['"', '"'],
    ][Math.floor(random() * 5)]!;
    return (
      text.slice(0, n) + open!.repeat(300) + text.slice(n, n + 40) + shut!.repeat(300) + text.slice(n + 40)
    );
  }),
  'another encoding': (bytes) =>
    Uint8Array.from(Buffer.from(Buffer.from(bytes).toString('latin1'), 'utf16le')),
  'an entity': inText((text, random) => {
    const n = text.indexOf('>', Math.floor(random() * text.length));
    const head =
      '<!DOCTYPE s [<!ENTITY a "&b;&b;"><!ENTITY b "&a;&a;"><!ENTITY c SYSTEM "file:///etc/hostname">]>';
    return (
      text.replace('?>', `?>${head}`).slice(0, n + head.length + 1) +
      ['&a;', '&c;', '&#0;'][Math.floor(random() * 3)]! +
      text.slice(n + 1)
    );
  }),
};

const random = seeded(20_261);
const good = (format: FormatOf): readonly Uint8Array[] =>
  Array.from({ length: 12 }, (_, i) => format.write(musicOf(i * 31 + 5)).bytes);

describe.each(FORMATS.map((format) => [format.kind, format] as const))('%s', (_, format) => {
  test('a broken file is refused with its place, or read as notes that can be played; nothing is thrown, nothing hangs', () => {
    const files = good(format);
    const met = { refused: 0, read: 0 };
    let longest = 0;
    const ways = Object.entries(BREAKS);
    for (let n = 0; n < drawn(5000); n++) {
      const [, breaks] = ways[n % ways.length]!;
      const bytes = breaks(files[Math.floor(random() * files.length)]!, random);
      const before = performance.now();
      const read = format.read(bytes);
      longest = Math.max(longest, performance.now() - before);
      if (!read.ok) {
        met.refused++;
        expect(read.error.message).toMatch(
          /^(Line|Track|Bar|Byte|There is no note|The container|The file) ?/u,
        );
        continue;
      }
      met.read++;
      for (const { midi, start, length } of notesIn(read.value)) {
        expect(midi === null || (Number.isInteger(midi) && midi >= 0 && midi <= 127)).toBe(true);
        expect(Number.isInteger(start) && start >= 0 && Number.isInteger(length) && length > 0).toBe(true);
      }
      const last = lastBar(read.value, 0, 0, 1);
      const tune = taken(read.value, { part: 0, voice: 0, bars: [1, last], chords: 'top' });
      if (tune.ok)
        for (const { length } of tune.value.tune) expect(length).toBeGreaterThanOrEqual(QUARTER / 8);
    }
    expect(met.refused).toBeGreaterThan(drawn(50));
    expect(met.read).toBeGreaterThan(drawn(200));
    expect(longest).toBeLessThan(2000);
  });
});

test('files that are too big or have too many notes are refused', () => {
  const big = new Uint8Array(5 * 1024 * 1024 + 1).fill(45);
  for (const format of FORMATS) {
    const read = format.read(big);
    expect(read.ok ? '' : read.error.code).toMatch(/^(file\.size|midi\.head)$/u);
  }
  const row = `|${'-5'.repeat(50)}`.repeat(70);
  const text = Array.from({ length: 6 }, () => row).join('\n');
  const many = readFile('a.txt', bytesOf(text));
  expect(many).toMatchObject({ ok: false, error: { code: 'file.notes' } });
});

test('20,000 notes of each format, and files that grow, are read with 120 MB of memory for all that is kept', () => {
  const { status, stdout, stderr } = spawnSync(
    process.execPath,
    ['--max-old-space-size=120', '--import', 'tsx', join(__dirname, 'inLittleMemory.ts')],
    { encoding: 'utf8' },
  );
  expect(stderr).toBe('');
  expect(status).toBe(0);
  expect(stdout.trim().split('\n')).toEqual([
    ...['long.tab', 'long.xml', 'long.mid', 'long.abc'].map((name) => `${name} 20000`),
    ...['deep.xml', 'wide.abc', 'wide.tab', 'loop.mid'].map((name) => `${name} refused`),
  ]);
});

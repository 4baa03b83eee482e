/** @jest-environment jsdom */
import {
  CATALOGUE,
  DEFAULT_INSTRUMENT,
  type Key,
  type Letter,
  LETTERS,
  neckOf,
  note,
  ROOTS,
  TUNINGS,
} from '@crow-ladder/core';
import { layOut } from '@crow-ladder/core/layouts';
import { alteredBy, keySignature, scoreOf } from '@crow-ladder/core/notation';
import {
  fingers,
  inTime,
  type NotesPerBeat,
  QUARTER,
  type Run,
  type Strike,
  strikeAs,
  strokesOf,
} from '@crow-ladder/core/run';
import fc from 'fast-check';
import { drawn } from '../../../../scripts/thorough.ts';
import { drawScore } from './draw.ts';
import { type BarNotes, type Clef } from './voices.ts';
import { type Drawable, pageOf } from './page.ts';

// jsdom lays nothing out: every text is a box of one size.
beforeAll(() => {
  Object.assign(SVGElement.prototype, { getBBox: () => ({ x: 0, y: 0, width: 8, height: 8 }) });
});

const straightOn = () => Promise.resolve();
const HAND = { school: 'onePerFret', spanMm: 110 } as const;
/** Runs over positions of the catalogue on four to nine strings, in every length, struck in every way. */
const written = fc
  .record({
    tuning: fc.constantFrom(...TUNINGS.filter((t) => t.tuning.length >= 4 && t.tuning.length <= 9)),
    scale: fc.constantFrom(...CATALOGUE),
    root: fc.constantFrom(...ROOTS.map((names) => note(names.at(-1)!))),
    perBeat: fc.constantFrom<NotesPerBeat>(1, 2, 3, 4, 6),
    how: fc.constantFrom<Strike>('picked', 'slurred', 'slid', 'tapped'),
    clef: fc.constantFrom<Clef>('treble', 'bass'),
    at: fc.nat(),
  })
  .map(({ tuning, scale, root, perBeat, how, clef, at }) => {
    const neck = neckOf({ ...DEFAULT_INSTRUMENT, tuning: tuning.tuning, frets: 24 });
    const key: Key = { root, scale };
    const laid = layOut(neck, key, { kind: 'count', counts: [scale.degrees.length < 7 ? 2 : 3] });
    if (!laid.ok || !laid.value.length) return null;
    const { spots } = laid.value[at % laid.value.length]!;
    const struck = strikeAs([...spots, ...[...spots].reverse().slice(1)], how, (route) =>
      fingers(neck, route, HAND),
    );
    return struck.ok ? { neck, key, clef, run: inTime(struck.value.steps, perBeat) } : null;
  })
  .filter((it) => it !== null);

const WHOLE = 4 * QUARTER;
/** Ticks that the library gives a whole note. */
const LIBRARY_WHOLE = 16_384;
const NATURAL: Readonly<Record<Letter, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
const SIGNS: Readonly<Record<string, number>> = { '#': 1, '##': 2, b: -1, bb: -2, n: 0 };
/** The lowest line of a staff as a letter from C in octave 0. */
const BOTTOM: Readonly<Record<Clef, number>> = { treble: 30, bass: 18 };

interface Read {
  readonly midi: number;
  readonly string: number;
  readonly fret: number;
  readonly ticks: number;
}

/** What stands in the bars that were drawn: pitches by line, signature and accidentals, as a reader of music finds them. */
function readBack(bars: readonly BarNotes[], clef: Clef, signature: number): readonly Read[] {
  const read: Read[] = [];
  for (const bar of bars) {
    const inBar = new Map<number, number>();
    bar.staff.forEach((note, i) => {
      const ticks = (note.getTicks().value() * WHOLE) / LIBRARY_WHOLE;
      if (note.isRest()) return;
      const at = BOTTOM[clef] + Math.round((note.getKeyLine(0) - 1) * 2);
      const letter = LETTERS[at % 7]!;
      for (const sign of note.getModifiersByType('Accidental'))
        inBar.set(at, SIGNS[(sign as unknown as { type: string }).type]!);
      const altered = inBar.get(at) ?? alteredBy(signature, letter);
      const midi = NATURAL[letter] + altered + 12 * (Math.floor(at / 7) + 1) - 12;
      const tab = bar.tab[i]!;
      if (!('getPositions' in tab)) {
        // Tied on: the same note, longer.
        const last = read.pop()!;
        expect(midi).toBe(last.midi);
        read.push({ ...last, ticks: last.ticks + ticks });
        return;
      }
      const [{ str, fret }] = tab.getPositions() as [{ str: number; fret: number }];
      expect((tab.getTicks().value() * WHOLE) / LIBRARY_WHOLE).toBe(ticks);
      read.push({ midi, string: str, fret, ticks });
    });
  }
  return read;
}
const asked = (run: Run): readonly Read[] =>
  run.map(({ spot, length }) => ({ midi: spot.midi, string: spot.string, fret: spot.fret, ticks: length }));

type Written = typeof written extends fc.Arbitrary<infer W> ? W : never;
/** What is drawn of a run: both staves, with its strokes. */
const drawable = ({ neck, key, clef, run }: Written): Drawable => ({
  run,
  score: scoreOf(run, key),
  clef,
  strings: neck.open.length,
  strokes: strokesOf(run, 'strict'),
  staff: true,
});

test('what the library is given is the run: pitches, strings, frets and lengths are read back from runs on four to nine strings', () => {
  return fc.assert(
    fc.asyncProperty(written, fc.constantFrom(1200, 360), async (given, width) => {
      const { key, clef, run } = given;
      const it = drawable(given);
      const bars = (await pageOf(it, width, straightOn)).lines.flatMap((l) =>
        l.bars.flatMap((b) => (b.ends ? [b.notes] : [])),
      );
      expect(readBack(bars, clef, keySignature(key))).toEqual(asked(run));
    }),
    { numRuns: drawn(200) },
  );
});

/**
 * Which bow a sign is, by its outline: down is a bracket, whose two legs stand at its sides, and up a wedge that ends in a
 * point (Standard Music Font Layout, stringsDownBow and stringsUpBow).
 */
function bowOf(path: string): 'down' | 'up' {
  const numbers = [...path.matchAll(/-?\d+(\.\d+)?/g)].map(([n]) => Number(n));
  const points = numbers.flatMap((x, i) => (i % 2 ? [] : [[x, numbers[i + 1]!] as const]));
  const [xs, ys] = [points.map(([x]) => x), points.map(([, y]) => y)];
  const [high, low] = [Math.min(...ys), Math.max(...ys)];
  const feet = points.filter(([, y]) => y > low - (low - high) / 5).map(([x]) => x);
  const wide = (of: readonly number[]): number => Math.max(...of) - Math.min(...of);
  return wide(feet) > wide(xs) / 2 ? 'down' : 'up';
}

test('what it draws says the same: frets on their strings, fingers, counts and signs under and over them, in the order of play', async () => {
  let many = 0;
  await fc.assert(
    fc.asyncProperty(written, fc.constantFrom(1000, 360), async (given, width) => {
      const { run } = given;
      const host = document.createElement('div');
      document.body.append(host);
      const it = drawable(given);
      const score = await drawScore(host, it, width, straightOn);
      const lines = (await pageOf(it, width, straightOn)).lines;
      expect(score.notes).toHaveLength(run.length);
      const texts = [...host.querySelectorAll('text')].map((t) => ({
        text: t.textContent,
        kind: t.getAttribute('class'),
        x: Number(t.getAttribute('x')),
        y: Number(t.getAttribute('y')),
      }));
      const frets = [...host.querySelectorAll('.vf-tabnote text')];
      expect(frets).toHaveLength(run.length);
      run.forEach(({ spot, finger, arrive }, i) => {
        const { x, line } = score.notes[i]!;
        const { high, top, height } = lines[line]!;
        const fret = frets[i]!;
        expect(fret.textContent).toBe(String(spot.fret));
        expect(Math.abs(Number(fret.getAttribute('x')) - x)).toBeLessThan(10);
        expect(Math.round((Number(fret.getAttribute('y')) - 5 - high) / 13)).toBe(spot.string - 1);
        const here = (kind: string, left: number, right: number) =>
          texts
            .filter((t) => t.kind === kind && t.y > top && t.y < top + height && t.x > left && t.x < right)
            .map((t) => t.text);
        expect(here('finger', x - 1, x + 1)).toEqual([finger === 5 ? 't' : String(finger)]);
        const last = score.notes[i - 1];
        const from = last?.line === line ? last.x + 1 : x - 20;
        expect(here('joint', arrive === 'tap' ? x - 1 : from, x + (arrive === 'tap' ? 1 : -1))).toEqual(
          { pick: [], hammer: ['h'], pull: ['p'], slide: ['s'], tap: ['t'] }[arrive],
        );
        many++;
      });
      expect([...host.querySelectorAll('.vf-stroke path')].map((p) => bowOf(p.getAttribute('d')!))).toEqual(
        it.strokes.filter((stroke) => stroke !== null),
      );
      host.remove();
    }),
    { numRuns: drawn(100) },
  );
  expect(many).toBeGreaterThan(200);
});

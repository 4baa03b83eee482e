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
import {
  alteredBy,
  type Clef,
  keySignature,
  ledgersOf,
  LINES,
  type Score,
  scoreOf,
} from '@crow-ladder/core/notation';
import {
  bendSign,
  fingers,
  heldSo,
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
import { Paper } from './paper.ts';
import { drawScore } from './draw.ts';
import { type Drawable, pageOf } from './page.ts';
import { type BarNotes } from './voices.ts';

const HAND = { school: 'onePerFret', spanMm: 110 } as const;
/** Runs over positions of the catalogue on four to nine strings, in every length, struck in every way. */
const written = fc
  .record({
    tuning: fc.constantFrom(...TUNINGS.filter((t) => t.tuning.length >= 4 && t.tuning.length <= 9)),
    scale: fc.constantFrom(...CATALOGUE),
    root: fc.constantFrom(...ROOTS.map((names) => note(names.at(-1)!))),
    perBeat: fc.constantFrom<NotesPerBeat>(1, 2, 3, 4, 6),
    how: fc.constantFrom<Strike>('picked', 'slurred', 'slid', 'tapped'),
    usual: fc.constantFrom<Clef>('treble', 'bass'),
    at: fc.nat(),
    held: fc.array(
      fc.record(
        {
          bend: fc.record({
            by: fc.integer({ min: 1, max: 6 }).map((n) => n / 2),
            how: fc.constantFrom('once' as const, 'slowly' as const),
            released: fc.boolean(),
          }),
          vibrato: fc.record({
            cents: fc.integer({ min: 10, max: 100 }),
            waves: fc.integer({ min: 3, max: 9 }),
          }),
        },
        { requiredKeys: [] },
      ),
      { minLength: 1, maxLength: 7 },
    ),
  })
  .map(({ tuning, scale, root, perBeat, how, usual, at, held }) => {
    const neck = neckOf({ ...DEFAULT_INSTRUMENT, tuning: tuning.tuning, frets: 24 });
    const key: Key = { root, scale };
    const laid = layOut(neck, key, { kind: 'count', counts: [scale.degrees.length < 7 ? 2 : 3] });
    if (!laid.ok || !laid.value.length) return null;
    const { spots } = laid.value[at % laid.value.length]!;
    const struck = strikeAs([...spots, ...[...spots].reverse().slice(1)], how, (route) =>
      fingers(neck, route, HAND),
    );
    if (!struck.ok) return null;
    // Some of its notes are bent, or held with vibrato, where they can be.
    const steps = struck.value.steps.map((step, i) => {
      const so = i % 5 ? null : heldSo(step, held[i % held.length]!, neck.open.length - 3);
      return so?.ok ? so.value.step : step;
    });
    return { neck, key, usual, run: inTime(steps, perBeat) };
  })
  .filter((it) => it !== null);

const WHOLE = 4 * QUARTER;
/** Ticks that the library gives a whole note. */
const LIBRARY_WHOLE = 16_384;
const NATURAL: Readonly<Record<Letter, number>> = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 };
const SIGNS: Readonly<Record<string, number>> = { '#': 1, '##': 2, b: -1, bb: -2, n: 0 };

interface Read {
  readonly midi: number;
  readonly string: number;
  readonly fret: number;
  readonly ticks: number;
  /** What stands at its bend, and once more where it is released. */
  readonly bent: readonly string[];
  readonly vibrato: boolean;
}

/** What stands in the bars that were drawn: pitches by line, signature and accidentals, as a reader of music finds them. */
function readBack(bars: readonly BarNotes[], score: Score): readonly Read[] {
  const { clef, signature } = score;
  const read: Read[] = [];
  bars.forEach((bar, n) => {
    const inBar = new Map<number, number>();
    bar.staff.forEach((note, i) => {
      const ticks = (note.getTicks().value() * WHOLE) / LIBRARY_WHOLE;
      if (note.isRest()) return expect(note.getKeyLine(0)).toBe(3);
      const at = LINES[clef][0] + Math.round((note.getKeyLine(0) - 1) * 2);
      expect(Math.abs(ledgersOf(at, clef))).toBeLessThanOrEqual(4);
      const letter = LETTERS[at % 7]!;
      for (const sign of note.getModifiersByType('Accidental'))
        inBar.set(at, SIGNS[(sign as unknown as { type: string }).type]!);
      const altered = inBar.get(at) ?? alteredBy(signature, letter);
      // The 8 of the clef takes an octave from it, a bracket gives its own.
      const { shift } = score.bars[n]!.items[i]!;
      const midi = NATURAL[letter] + altered + 12 * (Math.floor(at / 7) + 1 - 1 + shift);
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
      const [bend] = tab.getModifiersByType('Bend') as unknown as readonly { phrase: { text: string }[] }[];
      const vibrato = tab.getModifiersByType('Vibrato').length > 0;
      const bent = bend ? bend.phrase.map(({ text }) => text) : [];
      read.push({ midi, string: str, fret, ticks, bent, vibrato });
    });
  });
  return read;
}
const asked = (run: Run): readonly Read[] =>
  run.map(({ spot: { midi, string, fret }, length, bend, vibrato }) => ({
    midi,
    string,
    fret,
    ticks: length,
    bent: bend
      ? [`${bendSign(bend)}${bend.how === 'slowly' ? ' slow' : ''}`, ...(bend.released ? [''] : [])]
      : [],
    vibrato: vibrato !== undefined,
  }));

type Written = typeof written extends fc.Arbitrary<infer W> ? W : never;
/** What is drawn of a run: both staves, with its strokes. */
const drawable = ({ neck, key, usual, run }: Written): Drawable => ({
  run,
  score: scoreOf(run, key, { usual }),
  strings: neck.open.length,
  strokes: strokesOf(run, 'strict'),
  staff: true,
});

test('what the library is given is the run: pitches, strings, frets and lengths are read back from runs on four to nine strings', () => {
  fc.assert(
    fc.property(written, fc.constantFrom(1200, 360), (given, width) => {
      const { key, run } = given;
      const it = drawable(given);
      expect(it.score.signature).toBe(keySignature(key));
      const bars = pageOf(it, width).lines.flatMap((l) => l.bars.flatMap((b) => (b.ends ? [b.notes] : [])));
      expect(readBack(bars, it.score)).toEqual(asked(run));
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

test('what it draws says the same: frets on their strings, fingers, counts and signs under and over them, in the order of play', () => {
  let [many, shifted] = [0, 0];
  fc.assert(
    fc.property(written, fc.constantFrom(1000, 360), (given, width) => {
      const { run } = given;
      const host = document.createElement('div');
      document.body.append(host);
      const it = drawable(given);
      const score = drawScore(it, width, 1);
      host.innerHTML = score.html;
      // Where not even a beat fits, the page is drawn wider, and smaller.
      const wide = width / score.by;
      const { lines } = pageOf(it, wide);
      expect(score.notes).toHaveLength(run.length);
      const texts = [...host.querySelectorAll('text')].map((t) => ({
        text: t.textContent,
        kind: t.getAttribute('class'),
        x: Number(t.getAttribute('x')),
        y: Number(t.getAttribute('y')),
      }));
      const frets = [...host.querySelectorAll('.vf-tabnote text[font-weight="600"]')];
      expect(frets).toHaveLength(run.length);
      // Numbers do not touch, however many notes a beat has; a digit is 8 px wide.
      const room = (a: number, b: number) => 4 * (String(a).length + String(b).length) + 1;
      run.slice(1).forEach(({ spot }, i) => {
        const [a, b] = [score.notes[i]!, score.notes[i + 1]!];
        if (a.line === b.line)
          expect((b.x - a.x) / score.by).toBeGreaterThan(room(run[i]!.spot.fret, spot.fret));
      });
      // Over and under what is written in another octave stands a bracket, on each line anew.
      const brackets = [...host.querySelectorAll('text[font-style="italic"]')].filter((t) =>
        /^(8|15)$/.test(t.textContent),
      );
      const stretches = lines.flatMap(({ bars }) => {
        const shifts = bars.flatMap(({ items }) => items.filter((i) => i.pitch).map((i) => i.shift));
        return shifts.filter((shift, i) => shift !== 0 && shift !== shifts[i - 1]);
      });
      expect(brackets.map((t) => t.textContent)).toEqual(
        stretches.map((shift) => (Math.abs(shift) === 1 ? '8' : '15')),
      );
      shifted += brackets.length;
      run.forEach(({ spot, finger, arrive }, i) => {
        const { line } = score.notes[i]!;
        const x = score.notes[i]!.x / score.by;
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
        const from = last?.line === line ? last.x / score.by + 1 : x - 20;
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
  expect(shifted).toBeGreaterThan(3);
});

test('lines that look alike are one where nothing else lies between them, and only there', () => {
  const paper = new Paper();
  const line = (y: number): void => void paper.beginPath().moveTo(0, y).lineTo(9, y).stroke();
  paper.openGroup('stave');
  line(1);
  line(2);
  paper.closeGroup();
  paper.openGroup('stem');
  line(3);
  paper.closeGroup();
  line(4);
  paper.put('5', 0, 0, 'fret');
  line(5);
  const host = document.createElement('div');
  host.innerHTML = String(paper);
  const drawn = [...host.querySelectorAll('svg *')].map(
    (e) => e.getAttribute('d') ?? e.getAttribute('class'),
  );
  expect(drawn).toEqual(['vf-stave', 'M0 1L9 1M0 2L9 2', 'M0 3L9 3M0 4L9 4', 'fret', 'M0 5L9 5']);
  expect(String(paper)).toBe(host.innerHTML);
});

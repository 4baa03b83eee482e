import fc from 'fast-check';
import { drawn } from '../../../scripts/thorough.ts';
import {
  type Arrive,
  fingers,
  type Held,
  heldSo,
  heldText,
  inTime,
  type Neck,
  type NotesPerBeat,
  QUARTER,
  type Run,
  type Strike,
  strikeAs,
  strokesOf,
  tablature,
} from './core.ts';
import { anyKey, count, HAND, tableNeck } from './helpers.ts';
import { layOut } from './core.ts';

const ARRIVE: Readonly<Record<string, Arrive>> = {
  '-': 'pick',
  s: 'slide',
  h: 'hammer',
  p: 'pull',
  t: 'tap',
};

interface Read {
  readonly string: number;
  readonly fret: number;
  readonly finger: number;
  readonly arrive: Arrive;
  readonly start: number;
  /** What stands after the fret: how it is held. */
  readonly held: string;
  readonly stroke: string;
}

/**
 * Plain tablature as a player reads it: bars between bar lines, columns in proportion to time, what stands before a fret is how it is
 * reached, what stands under it is the finger. A whole bar has as many ticks as its beats have, so a column has its share of them.
 */
function readTablature(text: string, strings: number, beats: number): readonly Read[] {
  const notes: Read[] = [];
  const systems = text.split('\n\n').map((s) => s.split('\n'));
  // The first bar is a whole one: the others have columns of the same width.
  const [first = ''] = systems[0]!;
  const label = first.indexOf('|');
  const width = first.indexOf('|', label + 1) - label - 1;
  const column = (beats * QUARTER) / width;
  let bar = 0;
  for (const system of systems) {
    const [under = '', strokes = ''] = system.slice(strings);
    // The signs are explained at the end.
    if (system.length < strings) continue;
    const borders = [...system[0]!].flatMap((c, i) => (c === '|' ? [i] : []));
    borders.slice(0, -1).forEach((from, b) => {
      const here: Read[] = [];
      system.slice(0, strings).forEach((line, s) => {
        const cells = line.slice(from + 1, borders[b + 1]);
        for (const found of cells.matchAll(/([-shpt])(\d+)((?:b>?\d+½?(?:r\d+)?)?~?)/g)) {
          const at = found.index;
          const finger = under[from + 2 + at] ?? '';
          here.push({
            string: s + 1,
            fret: Number(found[2]),
            finger: finger === 't' ? 5 : Number(finger),
            arrive: ARRIVE[found[1]!]!,
            start: Math.round(bar * beats * QUARTER + at * column),
            held: found[3]!,
            stroke: strokes[from + 2 + at]?.trim() ?? '',
          });
        }
      });
      notes.push(...here.sort((a, b) => a.start - b.start));
      bar++;
    });
  }
  return notes;
}

interface Given {
  readonly neck: Neck;
  readonly run: Run;
  readonly width: number;
}
const run = fc
  .record({
    neck: tableNeck,
    key: anyKey,
    perBeat: fc.constantFrom<NotesPerBeat>(1, 2, 3, 4, 6),
    how: fc.constantFrom<Strike>('picked', 'slurred', 'slid', 'tapped'),
    width: fc.integer({ min: 40, max: 160 }),
    at: fc.nat(),
    by: fc.integer({ min: 1, max: 6 }).map((n) => n / 2),
    released: fc.boolean(),
  })
  .map(({ neck, key, perBeat, how, width, at, by, released }): Given | null => {
    const laid = layOut(neck, key, count(key.scale.degrees.length < 7 ? 2 : 3));
    if (!laid.ok || !laid.value.length) return null;
    const { spots } = laid.value[at % laid.value.length]!;
    const struck = strikeAs([...spots, ...[...spots].reverse(), ...spots], how, (route) =>
      fingers(neck, route, HAND),
    );
    if (!struck.ok) return null;
    const held: readonly Held[] = [
      { bend: { by, how: 'once', released } },
      { bend: { by, how: 'slowly', released }, vibrato: { cents: 30, waves: 5 } },
      { vibrato: { cents: 30, waves: 5 } },
    ];
    const steps = struck.value.steps.map((step, i) => {
      const so = i % 4 ? null : heldSo(step, held[(i / 4) % held.length]!, 3);
      return so?.ok ? so.value.step : step;
    });
    return { neck, run: inTime(steps, perBeat), width };
  })
  .filter((it) => it !== null);

test('plain tablature is read back as the run: strings, frets, fingers, strokes, how each note is reached and held, and when', () => {
  fc.assert(
    fc.property(run, ({ neck, run, width }) => {
      const strokes = strokesOf(run, 'strict');
      const text = tablature(run, neck, { width, strokes });
      const asked = run.map(({ spot: { string, fret }, finger, arrive, start, ...held }, i) => ({
        string,
        fret,
        finger,
        arrive,
        start,
        held: heldText(fret, held),
        stroke: strokes[i]?.[0] ?? '',
      }));
      expect(readTablature(text, neck.open.length, 4)).toEqual(asked);
    }),
    { numRuns: drawn(500) },
  );
});

test('what the signs of a text mean stands under it, and only of those that it has', () => {
  const step = (fret: number, arrive: Arrive, i: number): Run[number] => ({
    spot: { string: 1, fret, midi: 64 + fret, degree: 0 },
    finger: 1,
    hand: 5,
    arrive,
    start: i * QUARTER,
    length: QUARTER,
  });
  const neck: Neck = {
    open: [64, 59, 55, 50, 45, 40],
    rising: [6, 5, 4, 3, 2, 1],
    frets: 24,
    scaleLength: 648,
    capo: 0,
  };
  const said = (run: Run, strokes?: readonly ('down' | 'up' | null)[]): string | undefined =>
    tablature(run, neck, strokes && { strokes }).split('\n\n')[1];
  const [pick, hammer] = [step(5, 'pick', 0), step(7, 'hammer', 1)];
  expect(said([pick])).toBeUndefined();
  expect(said([pick, hammer], ['down', null])).toBe('d down stroke, h hammered on');
  expect(
    said([{ ...pick, bend: { by: 1, how: 'slowly', released: true }, vibrato: { cents: 30, waves: 5 } }]),
  ).toBe('b bent to the sound of a fret, b> slowly, r released, ~ vibrato');
});

import fc from 'fast-check';
import { drawn } from '../../../scripts/thorough.ts';
import {
  type Arrive,
  fingers,
  inTime,
  type Neck,
  type NotesPerBeat,
  QUARTER,
  type Run,
  type Strike,
  strikeAs,
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
    const [under = ''] = system.slice(strings);
    const borders = [...system[0]!].flatMap((c, i) => (c === '|' ? [i] : []));
    borders.slice(0, -1).forEach((from, b) => {
      const here: Read[] = [];
      system.slice(0, strings).forEach((line, s) => {
        const cells = line.slice(from + 1, borders[b + 1]);
        for (const found of cells.matchAll(/([-shpt])(\d+)/g)) {
          const at = found.index;
          const finger = under[from + 2 + at] ?? '';
          here.push({
            string: s + 1,
            fret: Number(found[2]),
            finger: finger === 't' ? 5 : Number(finger),
            arrive: ARRIVE[found[1]!]!,
            start: bar * beats * QUARTER + at * column,
          });
        }
      });
      notes.push(...here.sort((a, b) => a.start - b.start));
      bar++;
    });
  }
  return notes;
}

const run = fc
  .record({
    neck: tableNeck,
    key: anyKey,
    perBeat: fc.constantFrom<NotesPerBeat>(1, 2, 3, 4, 6),
    how: fc.constantFrom<Strike>('picked', 'slurred', 'slid', 'tapped'),
    width: fc.integer({ min: 40, max: 160 }),
    at: fc.nat(),
  })
  .map(({ neck, key, perBeat, how, width, at }): { neck: Neck; run: Run; width: number } | null => {
    const laid = layOut(neck, key, count(key.scale.degrees.length < 7 ? 2 : 3));
    if (!laid.ok || !laid.value.length) return null;
    const { spots } = laid.value[at % laid.value.length]!;
    const struck = strikeAs([...spots, ...[...spots].reverse(), ...spots], how, (route) =>
      fingers(neck, route, HAND),
    );
    return struck.ok ? { neck, run: inTime(struck.value.steps, perBeat), width } : null;
  })
  .filter((it) => it !== null);

test('plain tablature is read back as the run: strings, frets, fingers, how each note is reached and when', () => {
  fc.assert(
    fc.property(run, ({ neck, run, width }) => {
      const text = tablature(run, neck, { width });
      const asked = run.map(({ spot: { string, fret }, finger, arrive, start }) => ({
        string,
        fret,
        finger,
        arrive,
        start,
      }));
      expect(readTablature(text, neck.open.length, 4)).toEqual(asked);
    }),
    { numRuns: drawn(500) },
  );
});

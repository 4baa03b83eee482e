import fc from 'fast-check';
import {
  articulate,
  fingers,
  type Fingered,
  inTime,
  type NotesPerBeat,
  pitchAt,
  QUARTER,
  type Route,
  routeThrough,
  type Run,
  tablature,
} from './core.ts';
import { anyNeck, key, neckWith, positions } from './helpers.ts';

const neck = neckWith();
const FOUR = { school: 'onePerFret' } as const;
const box = positions(key('A', 'minor-pentatonic'), { kind: 'count', counts: [2] }).find(
  (p) => p.lowFret === 5,
)!;
const runOf = (route: Route, perBeat: NotesPerBeat = 2): Run =>
  inTime(articulate(fingers(neck, route, FOUR).steps), perBeat);

test('a route goes up, down, or up and back with the top note once', () => {
  const frets = (way: 'up' | 'down' | 'both') => routeThrough(box.spots, way).map((s) => s.midi);
  const up = frets('up');
  expect(frets('down')).toEqual([...up].reverse());
  expect(frets('both')).toEqual([...up, ...[...up].reverse().slice(1)]);
});

test('time is whole ticks, and notes follow each other without a gap', () => {
  for (const perBeat of [1, 2, 3, 4, 6] as const) {
    const run = runOf(box.spots, perBeat);
    expect(run[perBeat]!.start).toBe(QUARTER);
    run.forEach((s, i) => {
      expect(Number.isInteger(s.length)).toBe(true);
      expect(s.start).toBe(i ? run[i - 1]!.start + run[i - 1]!.length : 0);
    });
  }
});

describe('articulation', () => {
  const fingered = (
    notes: readonly (readonly [string: number, fret: number, finger: number, hand: number])[],
  ) =>
    notes.map(([string, fret, finger, hand]): Fingered => ({
      spot: { string, fret, midi: pitchAt(neck, string, fret), degree: 0 },
      finger,
      hand,
    }));
  const arrivals = (steps: readonly Fingered[], touch: 'picked' | 'slurred') =>
    articulate(steps, touch).map((s) => s.arrive);
  // 5 7 (1 3), slide to 9, then 10; on the next string 7 10, back to 7, the open string.
  const line = fingered([
    [6, 5, 1, 5],
    [6, 7, 3, 5],
    [6, 9, 3, 7],
    [6, 10, 4, 7],
    [5, 7, 1, 7],
    [5, 10, 4, 7],
    [5, 7, 1, 7],
    [5, 0, 0, 7],
  ]);

  test('a finger that keeps its string slides, whatever the touch; all else is picked', () => {
    expect(arrivals(line, 'picked')).toEqual([
      'pick',
      'pick',
      'slide',
      'pick',
      'pick',
      'pick',
      'pick',
      'pick',
    ]);
  });
  test('slurred, a higher finger hammers on and a lower one is pulled off to; no slur crosses strings', () => {
    expect(arrivals(line, 'slurred')).toEqual([
      'pick',
      'hammer',
      'slide',
      'hammer',
      'pick',
      'hammer',
      'pull',
      'pull',
    ]);
  });
  test('a slur needs a finger that can make it', () => {
    for (const notes of [
      [
        [6, 5, 3, 5],
        [6, 7, 2, 5],
      ],
      [
        [6, 7, 1, 5],
        [6, 5, 2, 5],
      ],
      [
        [6, 5, 1, 5],
        [6, 5, 1, 5],
      ],
      [
        [6, 5, 1, 5],
        [5, 7, 3, 5],
      ],
    ] as const)
      expect(arrivals(fingered(notes), 'slurred')).toEqual(['pick', 'pick']);
  });
  test('what the hand has to travel to is picked, and so is a note struck again', () => {
    expect(
      arrivals(
        fingered([
          [6, 5, 1, 5],
          [6, 10, 2, 9],
          [6, 10, 2, 9],
        ]),
        'slurred',
      ),
    ).toEqual(['pick', 'pick', 'pick']);
  });
});

describe('plain-text tablature', () => {
  test('the highest string on top, bars, fingers under their notes, letters for slurs and slides', () => {
    const steps = articulate(fingers(neck, box.spots, FOUR).steps, 'slurred');
    expect(tablature(inTime(steps), neck).split('\n')).toEqual([
      'E|----------------|-----5h8|',
      'B|----------------|-5h8----|',
      'G|-------------5h7|--------|',
      'D|---------5h7----|--------|',
      'A|-----5h7--------|--------|',
      'E|-5h8------------|--------|',
      '   1 4 1 3 1 3 1 3  1 4 1 4',
      '',
      'h hammered on',
    ]);
  });

  test('a line holds as many whole bars as fit; nothing played is nothing written', () => {
    const run = runOf(box.spots);
    const systems = (width: number): number => tablature(run, neck, { width }).split('\n\n').length;
    // A bar of eight eighths is 16 characters wide and its line, the half one 8; the name of the string takes two.
    expect([19, 27, 28, 40].map(systems)).toEqual([2, 2, 1, 1]);
    expect(tablature(run, neck, { width: 5 }).split('\n\n')).toHaveLength(2);
    expect(tablature([], neck)).toBe('');
    const waltz = tablature(run, neck, { beats: 3, accidentals: 'flats' }).split('\n');
    expect(waltz[0]).toBe('E|------------|---------5-8|');
  });

  test('a slide and two figures a fret', () => {
    const diagonal = positions(key('D', 'minor-pentatonic'), { kind: 'diagonal' }).find(
      (p) => p.lowFret === 8,
    )!;
    const lines = tablature(runOf(diagonal.spots).slice(0, 5), neck).split('\n');
    expect(lines.slice(4)).toEqual([
      'A|-------8--10s12|',
      'E|-8--10---------|',
      '   1  3  1  3  3',
      '',
      's by a slide',
    ]);
  });

  test('says every note once, on its own string, in order', () => {
    fc.assert(
      fc.property(
        anyNeck,
        fc.integer({ min: 1, max: 40 }),
        fc.constantFrom<NotesPerBeat>(1, 2, 3, 4, 6),
        fc.nat(),
        (on, count, perBeat, seed) => {
          const route = Array.from({ length: count }, (_, i) => {
            const string = 1 + ((seed + i * 7) % on.open.length);
            const fret = (seed * 3 + i * 5) % (on.frets + 1);
            return { string, fret, midi: pitchAt(on, string, fret), degree: 0 };
          });
          const text = tablature(inTime(articulate(fingers(on, route, FOUR).steps), perBeat), on);
          const strings = on.open.length;
          const told: string[][] = Array.from({ length: strings }, () => []);
          for (const system of text.split('\n\n').filter((s) => s.includes('|'))) {
            const lines = system.split('\n');
            expect(lines).toHaveLength(strings + 1);
            expect(new Set(lines.slice(0, strings).map((l) => l.length)).size).toBe(1);
            lines
              .slice(0, strings)
              .forEach((line, i) => told[i]!.push(...(line.slice(line.indexOf('|')).match(/\d+/g) ?? [])));
          }
          told.forEach((frets, i) =>
            expect(frets.map(Number)).toEqual(route.filter((s) => s.string === i + 1).map((s) => s.fret)),
          );
        },
      ),
      { numRuns: 60 },
    );
  });
});

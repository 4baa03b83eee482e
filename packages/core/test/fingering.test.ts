import fc from 'fast-check';
import {
  finger, type FingeringSchool, fingerings, fretText, type Grip, gripsOf, type HandOptions, isThird, type RunNote, stepBetween,
} from '../src/index.ts'; // prettier-ignore
import { key, neckWith, positions } from './helpers.ts';

const neck = neckWith();
const schools: readonly FingeringSchool[] = ['onePerFret', 'threeFingers', 'slides'];

/** Every way to take every note, tried one by one. */
function exhaustive(run: readonly RunNote[], hand: HandOptions): { cost: number; fingers: string }[] {
  const grips = gripsOf(neck, run, hand);
  const out: { cost: number; fingers: string }[] = [];
  const go = (i: number, cost: number, last: Grip | null, fingers: string): void => {
    if (i === run.length) return void out.push({ cost, fingers });
    for (const g of grips[i]!) {
      const step = last ? stepBetween(run[i - 1]!, last, run[i]!, g, isThird(run, i), hand.school).cost : 0;
      go(i + 1, cost + step + g.cost, g, fingers + g.finger);
    }
  };
  go(0, 0, null, '');
  return out.sort((a, b) => a.cost - b.cost);
}

const run = fc.array(
  fc.record({ string: fc.integer({ min: 1, max: 6 }), fret: fc.integer({ min: 0, max: 17 }) }),
  { minLength: 1, maxLength: 5 },
);
const differ = (a: string, b: string): number => [...a].filter((f, i) => f !== b[i]).length;

test('the best fingering costs what exhaustive search finds', () => {
  fc.assert(
    fc.property(
      run,
      fc.constantFrom(...schools),
      fc.integer({ min: 60, max: 140 }),
      (notes, school, spanMm) => {
        const hand = { school, spanMm };
        expect(finger(neck, notes, hand).cost).toBeCloseTo(exhaustive(notes, hand)[0]!.cost, 9);
      },
    ),
    { numRuns: 150 },
  );
});

test('alternatives really differ, and each is the cheapest that does', () => {
  fc.assert(
    fc.property(run, fc.constantFrom(...schools), (notes, school) => {
      const found = fingerings(neck, notes, { school }, 3);
      const fingers = found.map((f) => f.notes.map((n) => n.finger).join(''));
      for (let i = 0; i < found.length; i++) {
        const allowed = exhaustive(notes, { school }).filter((e) =>
          fingers.slice(0, i).every((f) => differ(f, e.fingers) >= 2),
        );
        expect(found[i]!.cost).toBeCloseTo(allowed[0]!.cost, 9);
      }
    }),
    { numRuns: 40 },
  );
});

test('fingers press the frets that the hand can reach, and none is wasted on an open string', () => {
  fc.assert(
    fc.property(run, fc.constantFrom(...schools), (notes, school) => {
      for (const n of finger(neck, notes, { school }).notes) {
        if (n.fret === 0) expect(n.finger).toBe(0);
        else
          expect(n.hand + n.finger - 1 + (n.stretch === 'index' ? -1 : n.stretch === 'forward' ? 1 : 0)).toBe(
            n.fret,
          );
        expect(n.finger).toBeLessThanOrEqual(school === 'onePerFret' ? 4 : 3);
      }
    }),
  );
});

const fingersOf = (frets: string, scale: string, school: FingeringSchool = 'onePerFret') => {
  const p = positions(key('A', scale), { kind: 'count', counts: [2] }).find((q) => fretText(q) === frets)!;
  return finger(neck, p.spots, { school });
};

test('the boxes come out as players finger them', () => {
  const box = fingersOf('5 8/5 7/5 7/5 7/5 8/5 8', 'minor-pentatonic');
  expect(box.notes.map((n) => n.finger).join('')).toBe('141313131414');
  expect([box.shifts, box.stretches]).toEqual([0, 0]);
  const box2 = fingersOf('8 10/7 10/7 10/7 9/8 10/8 10', 'minor-pentatonic');
  expect(box2.notes.map((n) => n.finger).join('')).toBe('241414132424');
});

test.each([
  ['5 7 9', '134'],
  ['5 6 8', '124'],
  ['5 7 8', '134'],
])('the group %s is fingered %s', (frets, fingers) => {
  const notes = frets.split(' ').map((f) => ({ string: 5, fret: Number(f) }));
  expect(
    finger(neck, notes, { school: 'onePerFret' })
      .notes.map((n) => n.finger)
      .join(''),
  ).toBe(fingers);
});

test('the major tetrachord is 1 3, slide 3, 4', () => {
  const notes = [5, 7, 9, 10].map((fret) => ({ string: 6, fret }));
  expect(
    finger(neck, notes, { school: 'onePerFret' }).notes.map(
      (n) => `${n.finger}${n.move === 'slide' ? 's' : ''}`,
    ),
  ).toEqual(['1', '3', '3s', '4']);
});

test('going down is fingered for itself, and sliders slide more', () => {
  const up = [2, 3, 5]
    .flatMap((f) => [{ string: 2, fret: f }])
    .concat([
      { string: 1, fret: 7 },
      { string: 1, fret: 10 },
    ]);
  const down = [...up].reverse();
  const there = finger(neck, up, { school: 'onePerFret' });
  const back = finger(neck, down, { school: 'onePerFret' });
  expect(back.notes.map((n) => n.move)).not.toEqual(there.notes.map((n) => n.move).reverse());
  const line = [5, 7, 10, 12, 14, 17].map((fret) => ({ string: 3, fret }));
  const slides = (school: FingeringSchool): number =>
    finger(neck, line, { school }).notes.filter((n) => n.move === 'slide').length;
  expect(slides('slides')).toBeGreaterThan(slides('onePerFret'));
});

test('a smaller span avoids wide stretches near the nut', () => {
  const notes = [1, 3, 5].map((fret) => ({ string: 6, fret }));
  expect(finger(neck, notes, { school: 'onePerFret', spanMm: 160 }).stretches).toBe(1);
  expect(finger(neck, notes, { school: 'onePerFret', spanMm: 70 }).stretches).toBe(0);
});

import fc from 'fast-check';
import {
  CATALOGUE,
  comparePositions,
  describeComparison,
  fretDistance,
  fretSpan,
  fretText,
  frontOf,
  holding,
  layOut,
  LAYOUTS,
  type LayoutSpec,
  note,
  positionNames,
  positionOf,
  positionThrough,
  refOf,
  rankLayouts,
  repeatLaw,
  rootsIn,
  scaleById,
  seams,
  shapeOf,
  sharedSpots,
  unisons,
  usualOf,
  wideStepLaw,
  jogsIn,
  fourthsColumn,
  stepSignature,
} from './core.ts';
import { anyKey, anyNeck, anyRoot, count, key, neckWith, positions, texts } from './helpers.ts';

const FOURTHS = 'E2 A2 D3 G3 C4 F4 A#4 D#5';

/** The handbook's worked values, in standard tuning. */
describe('worked values', () => {
  test.each<[string, string, string, LayoutSpec]>([
    ['5 7 9/5 7 9/6 7 9/6 7 9/7 9 10/7 9 10', 'A', 'major', count(3)],
    ['5 8/5 7/5 7/5 7/5 8/5 8', 'A', 'minor-pentatonic', count(2)],
    ['5 7 8/5 7 8/5 7/4 5 7/5 6 8/5 7 8', 'A', 'natural-minor', { kind: 'reach', reach: 3 }],
    ['7 8 10/7 8 10/7 9 10/7 9 10/8 10/7 8 10', 'A', 'natural-minor', { kind: 'reach', reach: 3 }],
    ['8 10/8 10 12/10 12/10 12 14/13 15/13 15 17', 'D', 'minor-pentatonic', { kind: 'diagonal' }],
    [
      '4 5 7/4 5 7/4 6 7/4 6 7/5 7/4 5 7',
      'A',
      'major',
      { kind: 'inPosition', school: 'index', every: false },
    ],
    [
      '3 5 7/3 5 7/4 5 7/4 5 7/5 7 9/5 7 9/7 8 10/7 8 10',
      'G',
      'major',
      { kind: 'relay', notes: 12, perString: 3 },
    ],
    ['5 7 9 10 12 14 16 17', 'A', 'major', { kind: 'single', string: 6 }],
    ['5 7 9 10/7 9 11 12', 'A', 'major', { kind: 'pair', lower: 6 }],
    ['5 7 10/5 7 9/5 8 10', 'A', 'minor-pentatonic', { kind: 'skip', perString: 3, from: 1, altered: [] }],
  ])('%s is a position of %s %s', (frets, root, scale, spec) => {
    expect(texts(key(root, scale), spec)).toContain(frets);
  });

  test('no stretch is needed for A major at IV, and II, IV, VI, IX, XI are worth learning', () => {
    const ps = positions(key('A', 'major'), { kind: 'inPosition', school: 'index', every: true });
    expect(ps.find((p) => p.indexFret === 4)!.stretches).toBe(0);
    const worth = ps
      .filter((p) => p.worthLearning && p.indexFret! >= 1 && p.indexFret! <= 12)
      .map((p) => p.indexFret);
    expect(worth).toEqual([2, 4, 6, 9, 11]);
  });

  test('the two stretch schools take a missing note with the index back or the little finger forward', () => {
    const at = (school: 'index' | 'little'): string =>
      fretText(
        positions(key('A', 'major'), { kind: 'inPosition', school, every: true }).find(
          (p) => p.indexFret === 6,
        )!,
      );
    expect(at('index')).toBe('7 9/5 7 9/6 7 9/6 7 9/7 9/5 7 9');
    expect(at('little')).toBe('7 9 10/7 9/6 7 9/6 7 9/7 9 10/7 9');
  });

  test('two strings repeat one pattern in the pair', () => {
    const pair = positions(key('A', 'major'), { kind: 'pair', lower: 6 }).find((p) => p.lowFret === 5)!;
    expect(stepSignature(pair)).toBe('W W H / W W H');
  });

  test('fret distances follow the equal-temperament rule', () => {
    expect(fretSpan(648, 1, 5)).toBeCloseTo(126.2, 1);
    expect(fretSpan(648, 12, 16)).toBeCloseTo(66.8, 1);
    expect(fretDistance(648, 12)).toBeCloseTo(324, 9);
  });

  test('regions give the octave low, high and in unison; unisons lie on the other strings', () => {
    const octave = positions(key('A', 'major'), { kind: 'regions', boundary: 7 }).filter(
      (p) => p.spots[0]!.midi === 57,
    );
    expect(octave.map((p) => p.region)).toEqual(expect.arrayContaining(['low', 'high', 'across']));
    expect(unisons(neckWith(), 6, 9)).toEqual([{ string: 5, fret: 4 }]);
  });

  test('positions carry the names of every school', () => {
    const ps = positions(key('C', 'major'), count(3));
    expect(positionNames(ps, key('C', 'major'), 'mode', count(3))[1]).toBe('Lydian position');
    const pent = positions(key('A', 'minor-pentatonic'), count(2));
    const at5 = pent.findIndex((p) => p.lowFret === 5);
    for (const [school, name] of [
      ['minorRoot', 'position 1'],
      ['majorRoot', 'position 5'],
      ['degree', 'position from the root'],
      ['roman', 'position V'],
      ['neck', 'position 3'],
    ] as const)
      expect([school, positionNames(pent, key('A', 'minor-pentatonic'), school, count(2))[at5]]).toEqual([
        school,
        name,
      ]);
  });
});

describe('laws', () => {
  test('three notes per string is reach 4 for every mode of the major scale', () => {
    fc.assert(
      fc.property(
        anyRoot,
        fc.constantFrom(...CATALOGUE.filter((s) => s.family === 'major modes')),
        (root, scale) => {
          expect(texts({ root, scale }, { kind: 'reach', reach: 4 })).toEqual(
            texts({ root, scale }, count(3)),
          );
        },
      ),
    );
  });

  test('in fourths the diatonic reach-3 layout repeats 3 3 2 3 3 over five strings, one fret lower, in five boxes', () => {
    const ps = positions(key('D', 'natural-minor'), { kind: 'reach', reach: 3 }, neckWith(FOURTHS));
    expect(new Set(ps.map((p) => p.start)).size).toBe(5);
    for (const p of ps) {
      const sizes = p.groups
        .slice(0, 5)
        .map((g) => g.frets.length)
        .join(' ');
      expect('3 3 2 3 3 3 3 2 3 3').toContain(sizes);
      for (let i = 5; i < p.groups.length; i++)
        expect(p.groups[i]!.frets).toEqual(p.groups[i - 5]!.frets.map((f) => f - 1));
    }
  });

  test('three notes per string repeats every seven strings and has seven positions; the pentatonic runs wide, three narrow, wide', () => {
    const seven = positions(key('A', 'dorian'), count(3), neckWith(FOURTHS, 36));
    expect(new Set(seven.map((p) => p.start)).size).toBe(7);
    for (const p of seven) expect(p.groups[7]!.steps).toBe(p.groups[0]!.steps);
    const box = positions(key('A', 'minor-pentatonic'), count(2), neckWith(FOURTHS)).find(
      (p) => p.start === 0,
    )!;
    expect(box.groups.map((g) => g.reach)).toEqual([3, 2, 2, 2, 3, 3, 2, 2]);
    expect(wideStepLaw(scaleById('minor-pentatonic')!)).toBe(
      'The wide steps (3 frets) follow the root and the 5; all other steps are 2 frets.',
    );
    expect(repeatLaw(scaleById('natural-minor')!, { kind: 'reach', reach: 3 })).toContain(
      'after 5 strings (14 notes), 1 fret down',
    );
  });

  test('the roots that start a wide step lie on strings 6, 4, 2, 5 and 3, one in each box', () => {
    const boxes = positions(key('A', 'minor-pentatonic'), count(2)).filter(
      (p) => p.lowFret >= 5 && p.lowFret < 17,
    );
    const strings = boxes.map(
      (p) => rootsIn(p).find((s) => p.groups.find((g) => g.string === s.string)!.frets[0] === s.fret)!.string,
    );
    expect(strings).toEqual([6, 4, 2, 5, 3]);
  });

  test('a position repeats twelve frets up', () => {
    fc.assert(
      fc.property(
        anyKey,
        fc.constantFrom<LayoutSpec>(count(2), count(3), { kind: 'reach', reach: 3 }),
        (k, spec) => {
          const all = layOut(neckWith(undefined, 36), k, spec);
          if (!all.ok) return;
          const low = new Set(all.value.map(fretText));
          for (const p of all.value.filter((q) => q.lowFret >= 12))
            expect(low).toContain(p.groups.map((g) => g.frets.map((f) => f - 12).join(' ')).join('/'));
        },
      ),
    );
  });

  test('moving the key moves every fret by the same number', () => {
    fc.assert(
      fc.property(fc.constantFrom(...CATALOGUE), (scale) => {
        const shifted = (root: string) =>
          positions({ root: note(root), scale }, count(2, 3), neckWith(undefined, 36));
        const up = shifted('A');
        const frets = new Set(shifted('G').map(fretText));
        for (const p of up.filter((q) => q.lowFret >= 2))
          expect(frets).toContain(p.groups.map((g) => g.frets.map((f) => f - 2).join(' ')).join('/'));
      }),
      { numRuns: 30 },
    );
  });

  test('a fourths window holds each pitch once in any tuning, and a root column is found from any string', () => {
    fc.assert(
      fc.property(anyKey, anyNeck, (k, neck) => {
        const result = layOut(neck, k, { kind: 'fourths' });
        for (const p of result.ok ? result.value : []) {
          const columns = p.spots.map((s) => {
            const c = fourthsColumn(neck, s.string, s.fret);
            return c.ok ? c.value : NaN;
          });
          expect(Math.max(...columns) - Math.min(...columns)).toBeLessThanOrEqual(4);
        }
      }),
    );
  });

  test('a spot is found in the positions that hold it; the default has it first on its string', () => {
    const ps = positions(key('A', 'minor-pentatonic'), count(2));
    expect(holding(ps, 6, 5).map((h) => [h.position.lowFret, h.onString, h.order])).toEqual([
      [2, 2, 2],
      [5, 1, 1],
    ]);
    expect(positionThrough(ps, 6, 5)!.lowFret).toBe(5);
    expect(positionThrough(ps, 6, 6)).toBeNull();
    expect(seams(ps)[0]!.spots.length).toBe(6);
  });

  test('a shape is the same in every key and an octave up, and is another where its frets are others', () => {
    fc.assert(
      fc.property(fc.constantFrom(...CATALOGUE), fc.constantFrom(2, 3), (scale, n) => {
        const shapes = (root: string) => {
          const ps = positions({ root: note(root), scale }, count(n));
          return new Map(ps.map((p) => [`${p.start}`, shapeOf(p)]));
        };
        const [a, b] = [shapes('A'), shapes('Eb')];
        for (const [start, shape] of a) if (b.has(start)) expect(b.get(start)).toBe(shape);
      }),
      { numRuns: 40 },
    );
    const boxes = positions(key('A', 'minor-pentatonic'), count(2));
    expect(shapeOf(boxes.find((p) => p.lowFret === 5)!)).toBe('6:0 3/5:0 2/4:0 2/3:0 2/2:0 3/1:0 3');
    expect(new Set(boxes.map(shapeOf)).size).toBe(5);
    for (const p of boxes) {
      const up = boxes.find((q) => q.lowFret === p.lowFret + 12);
      if (up) expect(sharedSpots(p, up)).toEqual([]);
    }
  });

  test('positions come in neck order, and a name finds its position again', () => {
    fc.assert(
      fc.property(anyKey, anyNeck, fc.constantFrom(...LAYOUTS.all()), (k, neck, layout) => {
        const spec = usualOf(layout, { scale: k.scale, string: 1, strings: neck.open.length });
        const result = layOut(neck, k, spec);
        const all = result.ok ? result.value : [];
        all.forEach((p, i) => {
          expect(p.index).toBe(i);
          if (i) expect(p.lowFret).toBeGreaterThanOrEqual(all[i - 1]!.lowFret);
          expect(positionOf(all, refOf(all, p))).toBe(p);
        });
      }),
    );
    const boxes = positions(key('A', 'minor-pentatonic'), count(2));
    const box = boxes.find((p) => p.lowFret === 5)!;
    expect(refOf(boxes, box)).toEqual({ start: 0, low: 5, nth: 0 });
    // The name outlives the other positions: on a shorter neck it is the same one, and where it is gone there is none.
    const short = positions(key('A', 'minor-pentatonic'), count(2), neckWith(undefined, 12));
    expect(positionOf(short, refOf(boxes, box))!.spots).toEqual(box.spots);
    expect(positionOf(short, refOf(boxes, boxes.at(-1)!))).toBeNull();
    // Two octaves of one root that lie in one region begin on the same degree and fret: the third number tells them apart.
    const twins = positions(key('C', 'chromatic'), { kind: 'regions', boundary: 7 });
    expect(new Set(twins.map((p) => JSON.stringify(refOf(twins, p)))).size).toBe(twins.length);
  });

  test('a position is always in front: the one asked for, the one through the root, or the nearest that holds a root', () => {
    const boxes = positions(key('A', 'minor-pentatonic'), count(2));
    const third = refOf(boxes, boxes[3]!);
    const root = { string: 6, fret: 5 };
    expect(frontOf(boxes, third, root)).toEqual({ position: boxes[3], by: 'choice' });
    expect(frontOf(boxes, null, root)).toMatchObject({ position: { lowFret: 5 }, by: 'root' });
    expect(frontOf(boxes, { ...third, low: 99 }, root)).toMatchObject({
      position: { lowFret: 5 },
      by: 'root',
    });
    // A string skip from string 5 never holds a root on string 4; the one whose root lies nearest comes forward.
    const skips = positions(key('A', 'minor-pentatonic'), {
      kind: 'skip',
      perString: 3,
      from: 1,
      altered: [],
    });
    const front = frontOf(skips, null, { string: 4, fret: 7 })!;
    expect(front.by).toBe('nearest');
    const far = (p: (typeof skips)[number]): number =>
      Math.min(...rootsIn(p).map((s) => Math.abs(s.fret - 7)));
    expect(far(front.position)).toBe(Math.min(...skips.filter((p) => rootsIn(p).length).map(far)));
    expect(frontOf([], null, root)).toBeNull();
  });

  test('an altered note never falls on a note that is there already', () => {
    const skip = (scale: string, degree: number, by: -1 | 1) =>
      layOut(neckWith(), key('A', scale), { kind: 'skip', perString: 4, from: 1, altered: [{ degree, by }] });
    const refused = skip('major', 2, 1);
    expect(refused).toMatchObject({ ok: false, error: { code: 'layout.option' } });
    expect(!refused.ok && refused.error.message).toBe(
      'The 3 raised falls on the 4, which is there already: alter another note.',
    );
    fc.assert(
      fc.property(
        fc.constantFrom(...CATALOGUE),
        fc.nat(11),
        fc.constantFrom<-1 | 1>(-1, 1),
        (scale, d, by) => {
          const result = skip(scale.id, d % scale.degrees.length, by);
          for (const p of result.ok ? result.value : [])
            expect(new Set(p.spots.map((s) => s.midi)).size).toBe(p.spots.length);
        },
      ),
    );
    expect(skip('minor-pentatonic', 4, -1).ok).toBe(true);
  });

  test('a pair begun on the string that sounds highest is made with the one below it', () => {
    const reentrant = neckWith('G4 D3 G3 B3 D4');
    const [first] = positions(key('G', 'major'), { kind: 'pair', lower: 5 }, reentrant);
    expect(first!.groups.map((g) => g.string)).toEqual([1, 5]);
    expect(first!.spots.map((s) => s.midi - first!.spots[0]!.midi)).toEqual([0, 2, 4, 5, 7, 9, 10, 12]);
    const high = positions(key('A', 'major'), { kind: 'pair', lower: 1 });
    expect(high[0]!.groups.map((g) => g.string)).toEqual([2, 1]);
  });

  test('shapes are related as players relate them', () => {
    const standard = positions(key('E', 'major'), count(3)).find((p) => p.start === 0)!;
    const fourths = positions(key('E', 'major'), count(3), neckWith('E2 A2 D3 G3 C4 F4')).find(
      (p) => p.start === 0,
    )!;
    expect(describeComparison(comparePositions(fourths, standard), 'position 1', 6)).toBe(
      'The same as position 1 but for strings 2 and 1, one fret up.',
    );
    // Of two strings that differ both, nothing is alike.
    const pairs = positions(key('A', 'dorian'), { kind: 'pair', lower: 5 });
    const [low, next] = [pairs[0]!, pairs[1]!];
    const apart = comparePositions(low, {
      ...next,
      groups: next.groups.map((g) => ({ ...g, frets: [g.frets[0]!] })),
    });
    expect(apart.except).toHaveLength(2);
    expect(describeComparison(apart, 'position 1', 6)).toBe('');
    expect(jogsIn(neckWith(), standard)).toMatchObject([
      { from: 3, to: 2, by: 1, why: expect.stringContaining('major third') },
    ]);
  });

  test('layouts are ranked for a scale: the diagonal suits the pentatonic, and cannot take the major scale', () => {
    expect(rankLayouts(neckWith(), key('A', 'major')).at(-1)!.layout.kind).toBe('diagonal');
    expect(layOut(neckWith(), key('A', 'major'), { kind: 'diagonal' })).toMatchObject({
      ok: false,
      error: { code: 'layout.scale' },
    });
  });
});

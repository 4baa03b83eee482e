import fc from 'fast-check';
import {
  type Alteration,
  alteredScale,
  drill,
  fromHand,
  frontOf,
  layOut,
  type LayoutSpec,
  lawsOf,
  refOf,
  rootsIn,
  scaleById,
} from './core.ts';
import { anyKey, count, key, neckWith, positions, texts } from './helpers.ts';

const skip = (...altered: readonly Alteration[]): LayoutSpec => ({
  kind: 'skip',
  perString: 3,
  from: 1,
  altered,
});
const B = key('B', 'minor-pentatonic');

describe('a string skip with altered notes', () => {
  // Handbook, section 10: the positions at 2 and 5 united on strings 5, 3 and 1; A lowered to G♯ on string 1.
  test('a degree is altered wherever it lies, or on one string alone', () => {
    expect(texts(B, skip())).toContain('2 5 7/2 4 7/2 5 7');
    expect(texts(B, skip({ degree: 4, by: -1, string: 1 }))).toContain('2 5 7/2 4 7/2 4 7');
    expect(texts(B, skip({ degree: 4, by: -1 }))).toContain('2 5 7/1 4 7/2 4 7');
    expect(texts(B, skip({ degree: 4, by: -1 }, { degree: 4, by: 1, string: 3 }))).toContain(
      '2 5 7/3 4 7/2 4 7',
    );
  });
  test('what comes of it is named from the root that there is', () => {
    const named = (scale: string, ...altered: Alteration[]) => {
      const made = alteredScale(scaleById(scale)!, altered);
      return [made.scale?.id ?? null, made.mode?.id ?? null];
    };
    expect(named('minor-pentatonic', { degree: 4, by: -1 })).toEqual(['minor-six-pentatonic', 'dorian']);
    expect(named('minor-pentatonic', { degree: 4, by: -1, string: 1 })).toEqual([null, 'dorian']);
    expect(named('natural-minor', { degree: 5, by: 1 })).toEqual(['dorian', null]);
    expect(named('major-pentatonic', { degree: 3, by: -1 })[1]).toBe('lydian');
    expect(named('minor-pentatonic', { degree: 3, by: -1 })[1]).toBe('locrian');
    // The fourth raised beside a minor third is in no mode of the major scale.
    expect(named('minor-pentatonic', { degree: 2, by: 1 })[1]).toBeNull();
  });
  test('the position in front stays in front', () => {
    fc.assert(
      fc.property(
        anyKey,
        fc.nat(11),
        fc.constantFrom<-1 | 1>(-1, 1),
        fc.constantFrom(undefined, 1, 3, 5),
        (k, d, by, string) => {
          const bare = layOut(neckWith(), k, skip());
          const degree = d % k.scale.degrees.length;
          const made = layOut(neckWith(), k, skip({ degree, by, ...(string && { string }) }));
          if (!bare.ok || !made.ok) return;
          const plain = (spots: readonly { string: number; fret: number; altered?: number }[]): string =>
            spots.map((s) => `${s.string}/${s.fret - (s.altered ?? 0)}`).join(' ');
          for (const position of made.value) {
            const before = bare.value.find((p) => plain(p.spots) === plain(position.spots))!;
            const front = frontOf(made.value, refOf(bare.value, before), { string: 6, fret: 5 });
            expect(front?.position).toBe(position);
          }
        },
      ),
      { numRuns: 60 },
    );
  });
  test('laws are those of the notes that are there', () => {
    const minor = scaleById('natural-minor')!;
    expect(lawsOf(minor, count(3))[0]).toBe('Half steps lie from 2 to b3 and 5 to b6.');
    expect(lawsOf(minor, skip({ degree: 5, by: 1 }))).toEqual(['Half steps lie from 2 to b3 and 6 to b7.']);
    // With one spot altered none holds throughout.
    expect(lawsOf(minor, skip({ degree: 5, by: 1, string: 1 }))).toEqual([]);
    expect(lawsOf(minor, skip({ degree: 0, by: 1 }))).toEqual([]);
  });
});

test('the nearest root from the hand is the one under it', () => {
  // A chord on strings 5 to 1 at frets 5 to 8 of A minor pentatonic has a root on string 4, at its edge, and one on string 6 outside.
  const boxes = positions(key('A', 'minor-pentatonic'), count(2));
  const hand = { frets: [7, 10], strings: [3, 6], held: [{ string: 4, fret: 7 }] } as const;
  const box = fromHand(boxes, hand).find((f) => f.position.lowFret === 5)!;
  expect(rootsIn(box.position).map((s) => `${s.string}/${s.fret}`)).toContain('4/7');
  expect(box.root).toMatchObject({ string: 4, fret: 7 });
  for (const f of fromHand(boxes, { frets: [4, 7], strings: [1, 4], held: null })) {
    const under = rootsIn(f.position).filter((s) => s.string <= 4 && s.fret >= 4 && s.fret <= 7);
    if (under.length) expect(under.map((s) => s.string)).toContain(f.root!.string);
  }
});

test('up in one scale, down in another: within the place where it went up', () => {
  const k = key('A', 'natural-minor');
  const neck = neckWith('E2 A2 D3 G3 B3 E4', 22);
  const down = (layout: LayoutSpec, scale: string): string => {
    const all = positions(k, layout, neck);
    const front = all.find((p) => p.spots[0]!.fret === 5)!;
    const played = drill(
      { neck, key: k, notes: front.spots, back: front.spots, layout, positions: all, front },
      { kind: 'other-scale', scale },
    );
    if (!played.ok) throw new Error(played.error.message);
    const route = played.value.notes.slice(front.spots.length);
    return route
      .map((s, i) => `${i && route[i - 1]!.string !== s.string ? '/' : i ? ' ' : ''}${s.fret}`)
      .join('');
  };
  expect(down(count(3), 'minor-pentatonic')).toBe('8 5/8 5/7 5/7 5/7 5/8 5');
  // Up to C in five notes, down in seven: not from the D above it.
  const five = key('A', 'minor-pentatonic');
  const box = positions(five, count(2), neck).find((p) => p.lowFret === 5)!;
  const back = drill(
    { neck, key: five, notes: box.spots, back: box.spots, layout: count(2), positions: [box], front: box },
    { kind: 'other-scale', scale: 'natural-minor' },
  );
  const top = Math.max(...(back.ok ? back.value.notes.map((n) => n.midi) : [99]));
  expect(top).toBe(box.spots.at(-1)!.midi);
  // Here both have C at the top, which is not struck again.
  expect(down({ kind: 'reach', reach: 3 }, 'minor-pentatonic')).toBe('5/8 5/7 5/7 5/7 5/8 5');
});

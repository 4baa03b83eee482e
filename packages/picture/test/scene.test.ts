import fc from 'fast-check';
import {
  boardShapes,
  type Figure,
  geometryOf,
  type Layers,
  layerShapes,
  layersOf,
  type Link,
  type Mark,
  type NeckLook,
  type Shape,
  svgText,
} from '../src/index.ts';

const lying: NeckLook = { vertical: false, even: false, lowOnTop: false, leftHanded: false, zoom: null };
const figure = (strings = 6, look: Partial<NeckLook> = {}): Figure => ({
  strings: Array.from({ length: strings }, (_, i) => ({ name: 'E', pitch: `E${i}` })),
  frets: 22,
  capo: 0,
  wound: 3,
  look: { ...lying, ...look },
});
const mark = (string: number, fret: number, part: Partial<Mark> = {}): Mark => ({
  string,
  fret,
  kind: 'note',
  label: '1',
  name: () => `String ${string} fret ${fret}`,
  ...part,
});
const shapes = (layers: Partial<Layers>, on = figure()): readonly Shape[] => {
  const { under, over } = layerShapes(layersOf(layers), geometryOf(on));
  return [...under, ...over];
};
const numbers = (d: string): number[] => (d.match(/-?[\d.]+/g) ?? []).map(Number);

test('a file is well formed whatever a label or title says, and holds no variable', () => {
  const nasty = 'A <b> & "c" ]]>';
  const text = svgText(
    { figure: figure(), layers: layersOf({ marks: [mark(1, 3, { label: '<&', name: () => nasty })] }) },
    { title: nasty, css: '.mark{fill:var(--ink);stroke:var(--none)}', values: { ink: '#123456' } },
  );
  expect(text).toContain('aria-label="A &lt;b&gt; &amp; &quot;c&quot; ]]&gt;"');
  expect(text).toContain('>&lt;&amp;</text>');
  expect(text).toContain('fill:#123456;stroke:currentColor');
  expect(text.match(/<(?!\/|\?)/g)!.length).toBe(text.match(/<\/|\/>/g)!.length);
});

test('inlays lie where the neck has them, wherever the capo is: a pair at the twelfth fret from the nut', () => {
  const inlaid = (capo: number): readonly number[] => {
    const on = { ...figure(), capo };
    const g = geometryOf(on);
    const at = boardShapes(on, g)
      .filter((s) => s.class === 'inlay')
      .map((s) => numbers(s.d!)[0]! + 5);
    return Array.from({ length: 23 - capo }, (_, f) => f).flatMap((f) =>
      at.filter((x) => f > 0 && Math.abs(x - g.centre(f)) < 0.01).map(() => f + capo),
    );
  };
  // Frets that are inlaid: common practice, no source.
  expect(inlaid(0)).toEqual([3, 5, 7, 9, 12, 12, 15, 17, 19, 21]);
  expect(inlaid(4)).toEqual([5, 7, 9, 12, 12, 15, 17, 19, 21]);
});

test('marks outside the frets shown are left out, and so are links that lead there', () => {
  const zoomed = figure(6, { zoom: [5, 9] });
  const link = (from: number, to: number): Link => ({
    from: { string: 1, fret: from },
    to: { string: 1, fret: to },
    kind: 'step',
    label: 'W',
  });
  const text = svgText(
    {
      figure: zoomed,
      layers: layersOf({ marks: [mark(1, 3), mark(1, 6), mark(9, 6)], links: [link(6, 8), link(3, 6)] }),
    },
    { title: 't', css: '', values: {} },
  );
  expect(text.match(/class="mark /g)).toHaveLength(1);
  expect(text.match(/link-word /g)).toHaveLength(1);
});

test('the word on an arc lies clear of the marks, with any number of strings, where there is room for words', () => {
  fc.assert(
    fc.property(
      fc.integer({ min: 3, max: 12 }),
      fc.nat(),
      fc.boolean(),
      fc.boolean(),
      (strings, n, lowOnTop, miss) => {
        const on = figure(strings, { roomy: true, lowOnTop, even: true, zoom: [4, 12], long: 400 });
        const g = geometryOf(on);
        const string = 1 + (n % strings);
        const kind = miss ? 'miss' : 'move';
        const [word] = shapes(
          { links: [{ from: { string, fret: 5 }, to: { string, fret: 7 }, kind, label: 'slide' }] },
          on,
        ).filter((s) => s.word);
        // Half of an 11 px letter, and the ring that the ground leaves around it.
        const tall = 5.5 + 2;
        for (let other = 1; other <= strings; other++)
          expect(Math.abs(word!.y! - g.across(other))).toBeGreaterThanOrEqual(g.mark.tall + tall - 2);
        expect(word!.y! - tall).toBeGreaterThan(0);
      },
    ),
  );
});

test('hand, region, path and cursor are drawn where their frets lie', () => {
  const g = geometryOf(figure());
  const [region, word] = shapes({ regions: [{ from: 1, to: 6, label: 'low' }] });
  const xs = numbers(region!.d!).filter((_, i) => i % 2 === 0);
  expect([Math.min(...xs), Math.max(...xs)]).toEqual([g.wire(0), g.wire(6)]);
  expect(word).toMatchObject({ class: 'region-word', word: 'low' });
  expect(shapes({ hand: { from: 5, to: 8, label: '' } }).map((s) => s.class)).toEqual(['hand']);
  const [path] = shapes({
    path: [
      { string: 6, fret: 5 },
      { string: 5, fret: 7 },
    ],
  });
  expect(numbers(path!.d!)).toEqual([g.at(6, 5).x, g.at(6, 5).y, g.at(5, 7).x, g.at(5, 7).y]);
  const rings = shapes({ cursor: { at: { string: 2, fret: 8 }, next: { string: 1, fret: 5 } } });
  expect(rings.map((s) => s.class)).toEqual(['ring ring-next', 'ring ring-sounding']);
  expect(shapes({ regions: [{ from: 14, to: 22, label: 'high' }] }, figure(6, { zoom: [0, 5] }))).toEqual([]);
});

test('the geometry of a neck is kept while its size and look are the same, and no longer', () => {
  expect(geometryOf(figure())).toBe(geometryOf({ ...figure(), wound: 0 }));
  expect(geometryOf(figure())).not.toBe(geometryOf(figure(7)));
  // A neck that is drawn again and again keeps its geometry, whatever else is drawn in between.
  const kept = geometryOf(figure());
  for (let from = 0; from < 20; from++) {
    geometryOf(figure(6, { zoom: [from, from + 4] }));
    expect(geometryOf(figure())).toBe(kept);
  }
  expect(geometryOf(figure(6, { zoom: [0, 5] }))).not.toBe(geometryOf(figure(6, { zoom: [0, 6] })));
});

test('a board has a wire for each fret, a line for each string and a number for each fret', () => {
  const of = (on: Figure, name: string) =>
    boardShapes(on, geometryOf(on)).filter((s) => s.class.startsWith(name));
  expect([
    of(figure(), 'wire').length,
    of(figure(), 'string').length,
    of(figure(), 'fret-number').length,
  ]).toEqual([22, 6, 22]);
  expect(of(figure(), 'string wound')).toHaveLength(3);
  const capo = { ...figure(), capo: 3 };
  expect(of(capo, 'fret-number')).toHaveLength(19);
  expect(of(capo, 'capo-name')[0]).toMatchObject({ word: 'capo III' });
  expect(of(figure(6, { zoom: [5, 9] }), 'nut')).toHaveLength(0);
});

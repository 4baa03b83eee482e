import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { fretText, instrumentOf, type Place, type PositionRef, tuningById } from '@crow-ladder/core';
import { spotHead, spotMore } from './describe.ts';
import { figureOf, lookOf } from './figure.ts';
import { knownId, knownPositions } from './known.ts';
import { marksOf, type Shown } from './marks.ts';
import { around, fretsShown, type Model, modelOf, moveKey } from './model.ts';

const BOX: ChartState = {
  ...FIRST_STATE,
  key: { root: 'A', scale: 'minor-pentatonic' },
  at: { string: 6, fret: 5 },
  layout: { kind: 'count', counts: [2] },
};
const model = (change: Partial<ChartState> = {}, settings = DEFAULT_SETTINGS): Model =>
  modelOf({ ...BOX, ...change }, settings);
const front = (ref: PositionRef | null) => model({ front: ref }).front!;
const plain = { labels: 'degree', rootsOnly: false, colours: 'plain' } as const;
const at = (m: Model, string: number, fret: number, labels: Shown['labels'] = 'degree') =>
  marksOf(m, { ...plain, labels }).find((x) => x.string === string && x.fret === fret);

test('the position through the root is in front, or the one that was chosen', () => {
  expect(fretText(front(null).position)).toBe('5 8/5 7/5 7/5 7/5 8/5 8');
  expect(fretText(front({ start: 1, low: 7, nth: 0 }).position)).toBe('8 10/7 10/7 10/7 9/8 10/8 10');
  expect(front({ start: 1, low: 7, nth: 0 }).by).toBe('choice');
  expect(model().names()[model().front!.position.index]).toBe('position 1');
});

test('the hand of the neck is the instrument’s unless the player asks for another', () => {
  const left = { ...FIRST_STATE.instrument, handed: 'left' } as const;
  const handed = (it: typeof left | typeof FIRST_STATE.instrument, asked: 'instrument' | 'right' | 'left') =>
    lookOf(it, { ...DEFAULT_SETTINGS, handed: asked }, null, false).leftHanded;
  expect([handed(left, 'instrument'), handed(left, 'right'), handed(left, 'left')]).toEqual([
    true,
    false,
    true,
  ]);
  expect([handed(FIRST_STATE.instrument, 'instrument'), handed(FIRST_STATE.instrument, 'left')]).toEqual([
    false,
    true,
  ]);
});

test('each kind of note has a mark of its own', () => {
  const m = model();
  expect(at(m, 6, 5)!.kind).toBe('root');
  expect(at(m, 6, 8)!.kind).toBe('note');
  expect(at(m, 6, 10)!.kind).toBe('outside');
  expect(at(m, 6, 17)!.kind).toBe('outsideRoot');
  expect(at(m, 6, 6)).toBeUndefined();
  const altered = model({
    at: { string: 5, fret: 12 },
    layout: { kind: 'skip', perString: 3, from: 1, altered: [{ degree: 3, by: -1 }] },
  });
  expect(
    marksOf(altered, { ...plain, labels: 'note' }).some((x) => x.kind === 'altered' && x.label === 'D♯'),
  ).toBe(true);
});

test.each([
  ['degree', '♭3', '♭3'],
  ['note', 'C', 'C'],
  ['finger', '4', ''],
  ['fret', '8', '20'],
  ['solfa', 'me', 'me'],
  ['order', '2', ''],
  ['none', '', ''],
] as const)('marks can say: %s', (labels, inside, outside) => {
  expect([at(model(), 6, 8, labels)!.label, at(model(), 6, 20, labels)!.label]).toEqual([inside, outside]);
});

test('roots stand alone when asked, and colours tell degrees but never the root', () => {
  const marks = marksOf(model(), { labels: 'degree', rootsOnly: true, colours: 'plain' });
  expect(new Set(marks.map((m) => m.label))).toEqual(new Set(['1']));
  const coloured = marksOf(model(), { labels: 'degree', rootsOnly: false, colours: 'degree' });
  const fills = new Map(coloured.filter((m) => m.kind === 'note').map((m) => [m.label, m.fill]));
  expect(new Set(fills.values()).size).toBe(4);
  expect(coloured.filter((m) => m.kind === 'root').every((m) => m.fill === undefined)).toBe(true);
});

test('a spot tells its string, fret, note, degree, finger, unisons and positions', () => {
  const said = (place: Place): string => `${spotHead(model(), place)}. ${spotMore(model(), place)}`;
  expect(said({ string: 5, fret: 7 })).toBe(
    'String 5, fret 7: E, degree 5, ring finger. Same pitch at string 6 fret 12 and string 4 fret 2. In position 1 and position 2.',
  );
  expect(said({ string: 6, fret: 1 })).toBe(
    'String 6, fret 1: F, outside the scale. This pitch lies nowhere else.',
  );
  expect(said({ string: 6, fret: 0 })).toMatch(/^String 6, open: E, degree 5/);
});

test('with a capo pitches sound higher and frets count from it', () => {
  const m = model({ instrument: { ...FIRST_STATE.instrument, capo: 5 }, at: { string: 6, fret: 0 } });
  expect(at(m, 6, 0)!.kind).toBe('root');
  expect(m.neck.frets).toBe(17);
});

test('where nothing fits the reason is kept and every note is shown in full', () => {
  const m = model({
    key: { root: 'A', scale: 'major' },
    layout: { kind: 'diagonal' },
    instrument: instrumentOf(tuningById('standard')!),
  });
  expect(m.positions.ok).toBe(false);
  expect(m.front).toBeNull();
  expect(marksOf(m, plain).every((x) => x.kind === 'root' || x.kind === 'note')).toBe(true);
});

test('a key moved keeps its position in front, at the ends of the neck an octave away', () => {
  const third: ChartState = { ...BOX, front: { start: 2, low: 9, nth: 0 } };
  const up = moveKey(third, 1, DEFAULT_SETTINGS);
  expect(up.front).toEqual({ start: 2, low: 10, nth: 0 });
  expect(moveKey(up, -1, DEFAULT_SETTINGS)).toEqual(third);
  for (const front of [null, { start: 2, low: 5, nth: 0 }, { start: 0, low: 17, nth: 0 }])
    for (const by of [1, -1] as const) {
      let state: ChartState = { ...BOX, front };
      const { start } = modelOf(state, DEFAULT_SETTINGS).front!.position;
      for (let i = 0; i < 26; i++) {
        state = moveKey(state, by, DEFAULT_SETTINGS);
        expect([front, by, i, modelOf(state, DEFAULT_SETTINGS).front!.position.start]).toEqual([
          front,
          by,
          i,
          start,
        ]);
      }
    }
});

test('the frets around the position in front, and those that a neck shows: the ones asked for, or on a narrow screen the ones that matter', () => {
  const m = model();
  expect([around(m), around(m, 1)]).toEqual([
    [3, 10],
    [4, 9],
  ]);
  expect(around(model({ at: { string: 6, fret: 17 } }), 3)).toEqual([14, 22]);
  expect(
    around(model({ key: { root: 'F', scale: 'minor-pentatonic' }, at: { string: 6, fret: 1 } }))![0],
  ).toBe(0);
  const shows = (
    view: { readonly zoom?: readonly [number, number]; readonly whole?: boolean },
    narrow: boolean,
    ofTask: readonly [number, number] | null = null,
  ) => fretsShown(m, { zoom: null, whole: false, ...view }, narrow, () => ofTask);
  expect([shows({}, false), shows({ zoom: [1, 7] }, false), shows({ zoom: [1, 7] }, true)]).toEqual([
    null,
    [1, 7],
    [1, 7],
  ]);
  expect([shows({}, true), shows({}, true, [2, 12]), shows({ whole: true }, true, [2, 12])]).toEqual([
    [4, 9],
    [2, 12],
    null,
  ]);
});

test('a neck is drawn with the strings from the first down, as they sound with the capo, within its frets', () => {
  const look = (narrow: boolean, zoom: readonly [number, number] | null, settings = DEFAULT_SETTINGS) =>
    lookOf({ ...FIRST_STATE.instrument, capo: 2 }, settings, zoom, narrow);
  expect(look(true, null)).toMatchObject({ vertical: true, zoom: null, lowOnTop: false });
  expect(look(false, [18, 30])).toMatchObject({ vertical: false, zoom: [18, 20] });
  expect(look(false, [25, 30]).zoom).toEqual([19, 20]);
  expect(look(false, null, { ...DEFAULT_SETTINGS, frets: 'even', stringOnTop: 'low' })).toMatchObject({
    even: true,
    lowOnTop: true,
  });
  const figure = figureOf({ ...FIRST_STATE.instrument, capo: 1 }, 'flats', look(false, null));
  expect(figure.strings.map((s) => s.pitch)).toEqual(['F4', 'C4', 'A♭3', 'E♭3', 'B♭2', 'F2']);
  expect(figure.strings.map((s) => s.name)).toEqual(['F', 'C', 'A♭', 'E♭', 'B♭', 'F']);
  expect([figure.frets, figure.capo, figure.wound]).toEqual([22, 1, 3]);
});

test('a shape that is known is known in every key, and in no other scale', () => {
  const m = model();
  const known = [knownId(m, m.front!.position)];
  const where = (of: Model) => knownPositions(of, known).map((p) => [p.start, p.lowFret]);
  expect(where(m)).toEqual([
    [0, 5],
    [0, 17],
  ]);
  const b = model({ key: { root: 'B', scale: 'minor-pentatonic' }, at: { string: 6, fret: 7 } });
  expect(where(b)).toEqual([
    [0, 7],
    [0, 19],
  ]);
  expect(where(model({ key: { root: 'A', scale: 'major-pentatonic' } }))).toEqual([]);
  expect([knownPositions(m, []), knownPositions(model({ layout: { kind: 'diagonal' } }), known)]).toEqual([
    [],
    [],
  ]);
});

test('a spot is told with the finger that is shown, an altered note as that', () => {
  const m = model();
  const twelfth = (finger: number) => ({
    ...m.fingering()!,
    steps: m.fingering()!.steps.map((s) => ({ ...s, finger })),
  });
  expect(spotHead(m, { string: 6, fret: 5 }, () => twelfth(3))).toBe(
    'String 6, fret 5: A, the root, ring finger',
  );
  expect(spotHead(m, { string: 6, fret: 5 }, () => null)).toBe('String 6, fret 5: A, the root');
  expect(spotHead(m, { string: 6, fret: 10 })).toBe('String 6, fret 10: D, degree 4');
  const altered = model({
    at: { string: 5, fret: 12 },
    layout: { kind: 'skip', perString: 3, from: 1, altered: [{ degree: 3, by: -1 }] },
  });
  const spot = altered.front!.position.spots.find((s) => s.altered)!;
  expect(spotHead(altered, spot)).toMatch(/: D♯, an altered note, \w+ finger$/);
});

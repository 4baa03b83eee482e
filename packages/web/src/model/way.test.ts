import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { degreeIndex, pitchAt, type Spot } from '@crow-ladder/core';
import { modelOf } from './model.ts';
import { marked, readOf, struck, wayLayers } from './way.ts';

const BOX: ChartState = {
  ...FIRST_STATE,
  key: { root: 'A', scale: 'minor-pentatonic' },
  at: { string: 6, fret: 5 },
  layout: { kind: 'count', counts: [2] },
};
const model = modelOf(BOX, DEFAULT_SETTINGS);
const shown = { labels: 'degree', rootsOnly: false, colours: 'plain' } as const;
const route = (...places: readonly (readonly [string: number, fret: number])[]) =>
  places.map(([string, fret]): Spot => {
    const midi = pitchAt(model.neck, string, fret);
    return { string, fret, midi, degree: degreeIndex(model.key, midi) };
  });
const read = (...places: readonly (readonly [number, number])[]) => {
  const done = struck(model, route(...places), 'picked');
  if (!done.ok) throw new Error(done.error.message);
  return { ...readOf(model, done.value.fingering, done.value.run), ...done.value };
};

test('a run in one place is read note by note, with its fingers, and asks nothing more of the hand', () => {
  const it = read([6, 5], [6, 8], [5, 5]);
  expect(it.many).toBe(3);
  expect([0, 1, 2].map(it.said)).toEqual([
    'string 6 fret 5, index finger, A',
    'string 6 fret 8, little finger, C',
    'string 5 fret 5, index finger, D',
  ]);
  expect(it.effort).toBe('3 notes, 0 shifts, at most 77 mm under the hand, frets 5 to 8.');
  expect(it.fingers).toBe('1 4 / 1');
  expect(it.tablature).toContain('5-8-');
});

test('a shift is said with the fret that the hand goes to, a note outside the scale by its pitch, an open string without a finger', () => {
  const it = read([6, 5], [6, 17], [6, 15], [5, 0]);
  expect(it.said(1)).toMatch(/^(shift|slide) to fret \d+, string 6 fret 17, .* finger, A$/);
  expect(it.effort).toMatch(/^4 notes, [12] shifts?, /);
  expect(read([5, 4]).said(0)).toMatch(/finger, C♯$/);
  expect(it.said(3)).toBe('open string 5, A');
});

test('the widest place of the hand is told, and it never holds five frets', () => {
  expect(read([6, 5], [6, 7], [6, 9]).effort).toBe(
    '3 notes, 0 shifts, at most 100 mm under the hand, frets 5 to 9.',
  );
  expect(read([6, 1], [5, 6], [6, 1], [5, 6]).effort).toBe('4 notes, 3 shifts, one fret at a time.');
});

test('a way is drawn through its notes: each marked once by the first time it is played, the others faded, and the note that is looked at', () => {
  const { fingering } = read([6, 5], [6, 8], [6, 5], [5, 5]);
  const layers = wayLayers(model, 1, shown, fingering.steps, 'climb');
  const of = (string: number, fret: number) =>
    layers.marks!.filter((m) => m.string === string && m.fret === fret);
  expect(of(6, 5).map((m) => [m.kind, m.label, m.name()])).toEqual([
    ['root', '1', 'String 6, fret 5: A, the root, index finger, note 1 of the climb'],
  ]);
  expect(of(6, 8).map((m) => [m.kind, m.label])).toEqual([['note', '♭3']]);
  expect(of(5, 7).map((m) => m.kind)).toEqual(['outside']);
  expect(of(6, 17).map((m) => m.kind)).toEqual(['outsideRoot']);
  expect(layers.path).toHaveLength(4);
  expect(layers.links).toEqual([
    { from: fingering.steps[0]!.spot, to: fingering.steps[1]!.spot, kind: 'move', label: '' },
  ]);
  expect(layers.cursor).toEqual({ at: fingering.steps[1]!.spot, next: fingering.steps[2]!.spot });
  // Past its end the last note is looked at, and nothing comes before the first.
  expect(wayLayers(model, 9, shown, fingering.steps, 'climb').cursor).toEqual({
    at: fingering.steps[3]!.spot,
    next: null,
  });
  expect(wayLayers(model, 0, shown, fingering.steps, 'climb').links).toEqual([]);
});

test('a note outside the scale is drawn as altered, with its order and its finger where they are asked for', () => {
  const { fingering } = read([6, 5], [6, 6]);
  const drawn = (labels: 'order' | 'finger' | 'degree' | 'note') =>
    wayLayers(model, 0, { ...shown, labels }, fingering.steps, 'climb').marks!.find(
      (m) => m.string === 6 && m.fret === 6,
    )!;
  expect([drawn('degree').kind, drawn('degree').label, drawn('note').label]).toEqual(['altered', '', 'A♯']);
  expect([drawn('order').label, drawn('finger').label]).toEqual(['2', '2']);
});

test('without a way the chart is shown as it is', () => {
  const { marks, path } = wayLayers(model, 0, shown, undefined, 'climb');
  expect([marks!.find((m) => m.string === 6 && m.fret === 8)!.kind, path]).toEqual(['note', undefined]);
});

test('marks are of the kind that is asked for, the root told in each that is not its own, and more is said of them', () => {
  const marks = marked(
    model,
    shown,
    (s) => (s.string === 6 ? 'shared' : s.string === 5 ? 'root' : null),
    (s) => `, fret ${s.fret}`,
  );
  const of = (string: number, fret: number) => marks.find((m) => m.string === string && m.fret === fret)!;
  expect([of(6, 5).kind, of(6, 5).root, of(6, 8).root, of(5, 0).root]).toEqual([
    'shared',
    true,
    undefined,
    undefined,
  ]);
  expect([of(4, 7).kind, of(4, 7).root, of(4, 5).kind]).toEqual(['outsideRoot', undefined, 'outside']);
  expect(of(4, 5).name()).toMatch(/^String 4, fret 5: G, degree ♭7.*, fret 5$/);
});

test('how a note is struck and held is said after it: its stroke where strokes are given, else only what is not picked', () => {
  const done = struck(model, route([6, 5], [6, 8], [6, 5]), 'slurred');
  if (!done.ok) throw new Error(done.error.message);
  const { fingering, run } = done.value;
  const bent = run.map((s, i) => (i ? s : { ...s, bend: { by: 1, how: 'once', released: false } as const }));
  const strokes = ['down', null, null] as const;
  expect([0, 1, 2].map(readOf(model, fingering, bent, strokes).said)).toEqual([
    'string 6 fret 5, index finger, A, down stroke, bent by a half step',
    'string 6 fret 8, little finger, C, hammered on',
    'string 6 fret 5, index finger, A, pulled off',
  ]);
  expect(readOf(model, fingering, run).said(0)).toBe('string 6 fret 5, index finger, A');
});

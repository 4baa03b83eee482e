import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { CATALOGUE, instrumentOf, placeId, ROOTS, TUNINGS } from '@crow-ladder/core';
import { signatureOf, tablature } from '@crow-ladder/core/run';
import fc from 'fast-check';
import { type Shown } from '../../model/marks.ts';
import { modelOf, played } from '../../model/model.ts';
import { withInstrument, withRoot } from '../../model/moves.ts';
import { laidOut, miscounted } from './laidOut.ts';
import { AT_FIRST, type FormulaParams, params, type Stage, STAGES } from './params.ts';
import { scene } from './scene.ts';

const A_MAJOR: ChartState = {
  ...FIRST_STATE,
  key: { root: 'A', scale: 'major' },
  at: { string: 6, fret: 5 },
};
const shown: Shown = { labels: 'degree', rootsOnly: false, colours: 'plain' };
const show = (part: Partial<FormulaParams>, state = A_MAJOR) => {
  const model = modelOf(state, DEFAULT_SETTINGS);
  const whole = { ...AT_FIRST, ...part };
  const laid = laidOut(model, whole);
  return { model, laid, run: laid.fingering.steps.map((s) => s.spot), ...scene(model, whole, shown) };
};
const spots = (part: Partial<FormulaParams>): readonly string[] =>
  show(part).run.map((s) => `${s.string}/${s.fret}`);

// Worked values of A major from fret 5 of string 6: common practice, no source.
test('on one string the run goes to the octave, and downward on to the open string', () => {
  const frets = show({}).run.map((s) => s.fret);
  expect(frets).toEqual([5, 7, 9, 10, 12, 14, 16, 17]);
  expect(show({ down: true }).run.map((s) => s.fret)).toEqual([17, 16, 14, 12, 10, 9, 7, 5, 4, 2, 0]);
  expect(show({ start: 1 }).run.map((s) => s.fret)).toEqual([7, 9, 10, 12, 14, 16, 17, 19]);
});

test('on two strings it goes four and four, and in position over all strings', () => {
  expect(spots({ stage: 'pair' })).toEqual(['6/5', '6/7', '6/9', '6/10', '5/7', '5/9', '5/11', '5/12']);
  expect(spots({ stage: 'position' }).join(' ')).toBe(
    '6/5 6/7 5/4 5/5 5/7 4/4 4/6 4/7 3/4 3/6 3/7 2/5 2/7 1/4 1/5 1/7',
  );
});

test('every note that moved over sounds as it did', () => {
  const anyState = fc
    .record({
      tuning: fc.constantFrom(...TUNINGS),
      scale: fc.constantFrom(...CATALOGUE),
      roots: fc.constantFrom(...ROOTS),
      string: fc.nat(),
    })
    .map(({ tuning, scale, roots, string }) => {
      const state = withInstrument(FIRST_STATE, instrumentOf(tuning), null);
      const at = { ...state.at, string: 1 + (string % tuning.tuning.length) };
      return withRoot({ ...state, key: { ...state.key, scale: scale.id }, at }, roots[0]!);
    });
  const anyStage = fc.constantFrom(...STAGES.map((s) => s.id));
  let moved = 0;
  fc.assert(
    fc.property(anyState, anyStage, fc.nat(11), (state, stage, start) => {
      const { model, laid, marks, links } = show({ stage, start }, state);
      const open = (string: number): number => model.neck.open[string - 1]!;
      for (const { from, to } of laid.moved)
        expect(open(from.string) + from.fret).toBe(open(to.string) + to.fret);
      moved += laid.moved.length;
      // No two marks on one spot; a step link is as wide as it says.
      expect(new Set(marks.map(placeId)).size).toBe(marks.length);
      for (const l of links.filter((x) => x.kind === 'step'))
        expect({ H: 1, W: 2, 'W+H': 3 }[l.label] ?? Number(l.label)).toBe(Math.abs(l.to.fret - l.from.fret));
    }),
  );
  expect(moved).toBeGreaterThan(0);
});

test('the notes of the octave are followed from stage to stage, but not into another key', () => {
  const followed = (stage: Stage, state = A_MAJOR): readonly string[] =>
    show({ stage }, state)
      .marks.flatMap((m) => m.follows ?? [])
      .slice(0, 8);
  expect(followed('single')).toHaveLength(8);
  expect(followed('pair')).toEqual(followed('single'));
  expect(followed('position')).toEqual(followed('single'));
  expect(followed('single', withRoot(A_MAJOR, 'Bb'))).not.toEqual(followed('single'));
});

test('steps that miss the octave are shown where they land, beside the octave', () => {
  const typed = { text: 'W W H W W H H', scale: 'major' };
  const { marks, links } = show({ typed });
  expect(marks.map((m) => m.fret)).toEqual([5, 7, 9, 10, 12, 14, 15, 16, 17]);
  expect(marks.at(-2)!.kind).toBe('altered');
  expect(marks.at(-1)!.kind).toBe('outsideRoot');
  expect(links.at(-1)).toMatchObject({
    kind: 'miss',
    label: '1 fret short',
    from: { fret: 16 },
    to: { fret: 17 },
  });
  // It belongs to the scale that it was typed over, and to one string.
  const { model } = show({});
  expect(miscounted(model, { ...AT_FIRST, typed: { ...typed, scale: 'dorian' } })).toBeNull();
  expect(miscounted(model, { ...AT_FIRST, typed, stage: 'pair' })).toBeNull();
  expect(miscounted(model, { ...AT_FIRST, typed: { ...typed, text: 'W W x' } })).toBeNull();
});

test('steps beyond the last fret stay off the neck', () => {
  const high = { ...A_MAJOR, at: { string: 6, fret: 17 } };
  const { marks } = show({ typed: { text: 'W W W W W W W', scale: 'major' } }, high);
  expect(Math.max(...marks.map((m) => m.fret))).toBeLessThanOrEqual(22);
});

test('the run reads as its fingers and as tablature', () => {
  const { laid, model } = show({});
  expect(signatureOf(laid.fingering.steps)).toBe('1 3 s3 4 | 1 3 s3 4');
  const lines = tablature(played(laid.fingering), model.neck).split('\n');
  expect(lines[5]).toBe('E|-5--7-s9--10-12-14s16-17|');
});

test('its parameters come back from the address as they were', () => {
  const all: readonly FormulaParams[] = [
    AT_FIRST,
    { stage: 'pair', start: 3, down: true, typed: null },
    { ...AT_FIRST, typed: { scale: 'own:1,b3,5', text: 'W ~ H & 3' } },
  ];
  for (const one of all) {
    const query = new URLSearchParams();
    for (const [name, value] of Object.entries(params.write(one))) if (value !== null) query.set(name, value);
    expect(params.read(new URLSearchParams(query.toString()))).toEqual(one);
  }
  expect(params.read(new URLSearchParams('stage=moon&start=x&formula=dorian'))).toEqual(AT_FIRST);
});

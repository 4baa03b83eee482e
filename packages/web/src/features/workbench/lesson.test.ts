import { type ChartState, DEFAULT_SETTINGS, FIRST_STATE } from '@crow-ladder/contract';
import { CATALOGUE, instrumentOf, ROOTS, TUNINGS } from '@crow-ladder/core';
import fc from 'fast-check';
import { withInstrument, withRoot } from '../../app/moves.ts';
import { FIRST_LESSON, type Lesson, miscounted, picture, STAGES, teach } from './lesson.ts';
import { modelOf, type Shown } from './model.ts';

const A_MAJOR: ChartState = { ...FIRST_STATE, root: 'A', scale: 'major', string: 6, fret: 5 };
const settings = DEFAULT_SETTINGS;
const shown: Shown = { labels: 'degree', rootsOnly: false, colours: 'plain' };
const show = (lesson: Partial<Lesson>, state = A_MAJOR) => {
  const model = modelOf(state, settings, null);
  const whole = { ...FIRST_LESSON, ...lesson };
  const taught = teach(model, whole, settings);
  return { model, taught, ...picture(model, whole, taught, shown) };
};
const spots = (lesson: Partial<Lesson>): readonly string[] =>
  show(lesson).taught.run.map((s) => `${s.string}/${s.fret}`);

// Worked values of A major from fret 5 of string 6: common practice, no source.
test('on one string the run goes to the octave, and downward on to the open string', () => {
  const frets = show({}).taught.run.map((s) => s.fret);
  expect(frets).toEqual([5, 7, 9, 10, 12, 14, 16, 17]);
  expect(show({ down: true }).taught.run.map((s) => s.fret)).toEqual([17, 16, 14, 12, 10, 9, 7, 5, 4, 2, 0]);
  expect(show({ start: 1 }).taught.run.map((s) => s.fret)).toEqual([7, 9, 10, 12, 14, 16, 17, 19]);
});

test('on two strings it goes four and four, and in position over all strings', () => {
  expect(spots({ stage: 'pair' })).toEqual(['6/5', '6/7', '6/9', '6/10', '5/7', '5/9', '5/11', '5/12']);
  expect(spots({ stage: 'inPosition' }).join(' ')).toBe(
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
      return withRoot({ ...state, scale: scale.id, string: 1 + (string % tuning.tuning.length) }, roots[0]!);
    });
  const anyStage = fc.constantFrom(...STAGES.map((s) => s.id));
  let moved = 0;
  fc.assert(
    fc.property(anyState, anyStage, fc.nat(11), (state, stage, start) => {
      const { model, taught, marks, links } = show({ stage, start }, state);
      const open = (string: number): number => model.neck.open[string - 1]!;
      for (const { from, to } of taught.moved)
        expect(open(from.string) + from.fret).toBe(open(to.string) + to.fret);
      moved += taught.moved.length;
      // No two marks on one spot; a step link is as wide as it says.
      expect(new Set(marks.map((m) => m.string * 100 + m.fret)).size).toBe(marks.length);
      for (const l of links.filter((x) => x.kind === 'step'))
        expect({ H: 1, W: 2, 'W+H': 3 }[l.label] ?? Number(l.label)).toBe(Math.abs(l.to.fret - l.from.fret));
    }),
  );
  expect(moved).toBeGreaterThan(0);
});

test('the notes of the octave are followed from stage to stage, but not into another key', () => {
  const followed = (stage: Lesson['stage'], state = A_MAJOR): readonly string[] =>
    show({ stage }, state)
      .marks.flatMap((m) => m.follows ?? [])
      .slice(0, 8);
  expect(followed('single')).toHaveLength(8);
  expect(followed('pair')).toEqual(followed('single'));
  expect(followed('inPosition')).toEqual(followed('single'));
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
  expect(miscounted(model, { ...FIRST_LESSON, typed: { ...typed, scale: 'dorian' } })).toBeNull();
  expect(miscounted(model, { ...FIRST_LESSON, typed, stage: 'pair' })).toBeNull();
  expect(miscounted(model, { ...FIRST_LESSON, typed: { ...typed, text: 'W W x' } })).toBeNull();
});

test('steps beyond the last fret stay off the neck', () => {
  const high = { ...A_MAJOR, fret: 17 };
  const { marks } = show({ typed: { text: 'W W W W W W W', scale: 'major' } }, high);
  expect(Math.max(...marks.map((m) => m.fret))).toBeLessThanOrEqual(22);
});

import { type ChartState, FIRST_STATE, PLAN_AT_FIRST } from '@crow-ladder/contract';
import { CATALOGUE, instrumentOf, ROOTS, TUNINGS } from '@crow-ladder/core';
import { type LayoutSpec } from '@crow-ladder/core/layouts';
import fc from 'fast-check';
import { withRoot } from './moves.ts';
import { draftFromQuery, stateFromQuery } from './address.ts';
import { draftToQuery, stateToQuery } from './addressWords.ts';

const layouts: readonly LayoutSpec[] = [
  { kind: 'count', counts: [3] },
  { kind: 'count', counts: [3, 3, 2, 3, 3] },
  { kind: 'reach', reach: 4 },
  { kind: 'diagonal' },
  { kind: 'inPosition', school: 'little', every: true },
  { kind: 'inPosition', school: 'index', every: false },
  { kind: 'single', string: 2 },
  { kind: 'pair', lower: 3 },
  { kind: 'relay', notes: 12, perString: 3 },
  { kind: 'skip', perString: 3, from: 1, altered: [] },
  {
    kind: 'skip',
    perString: 4,
    from: 0,
    altered: [
      { degree: 1, by: -1 },
      { degree: 11, by: 1 },
      { degree: 2, by: -1, string: 12 },
    ],
  },
  { kind: 'regions', boundary: 9 },
  { kind: 'fourths' },
];

test('kept climbs, what is laid over it and other instruments are in the address with the rest', () => {
  const { instrument, layout, at } = FIRST_STATE;
  const named = { name: 'Pier; & north', at, root: 'F#' };
  const other = { instrument, layout, at, instrumentId: null, front: { start: 1, low: 4, nth: 0 } };
  const state: ChartState = {
    ...FIRST_STATE,
    runs: [
      { ...named, type: 'plan', plan: PLAN_AT_FIRST, pick: 1 },
      { type: 'unread', was: { lines: [1, 'two'] } },
    ],
    overlays: [
      { type: 'scale', scale: 'own:1,b3,4,b5,b7', above: 7 },
      { type: 'of later', 'a;b': [1] },
    ],
    others: [other, { ...other, instrumentId: 'seven', instrument: { ...instrument, scaleLength: 647.7 } }],
  };
  const back = stateFromQuery(new URLSearchParams(stateToQuery(state).toString()));
  expect(back).toEqual({ ok: true, value: state });
  const torn = stateFromQuery(new URLSearchParams('run=climb;6.5'));
  expect(!torn.ok && torn.error.field).toMatch(/^runs\[0\]/);
  expect(stateFromQuery(new URLSearchParams('over=scale;12;dorian'))).toMatchObject({
    error: { field: 'overlays[0].above' },
  });
  // An address of before says nothing of them: those of the chart stay.
  expect(stateFromQuery(new URLSearchParams('root=F%23'), state)).toEqual({ ok: true, value: state });
});

test('any state comes back from its address as it was', () => {
  const anyState = fc
    .record({
      root: fc.constantFrom(...ROOTS.flat()),
      scale: fc.constantFrom('own:1,b3,4,b5,b7', ...CATALOGUE.map((s) => s.id)),
      tuning: fc.constantFrom(...TUNINGS),
      layout: fc.constantFrom(...layouts),
      fret: fc.integer({ min: 0, max: 11 }),
      capo: fc.integer({ min: 0, max: 3 }),
      handed: fc.constantFrom('right' as const, 'left' as const),
      scaleLength: fc.constantFrom(432, 628.65, 648, 863.6),
      instrumentId: fc.constantFrom(null, 'abc_D-12'),
      front: fc.constantFrom(null, { start: 2, low: 7, nth: 0 }, { start: 0, low: 0, nth: 3 }),
    })
    .map(
      ({
        root,
        scale,
        tuning,
        layout,
        fret,
        capo,
        handed,
        scaleLength,
        instrumentId,
        front,
      }): ChartState => ({
        ...withRoot(
          {
            ...FIRST_STATE,
            key: { root, scale },
            at: { string: Math.min(3, tuning.tuning.length), fret },
            layout,
            instrument: { ...instrumentOf(tuning), capo, handed, scaleLength, name: 'my “own” & only' },
            instrumentId,
          },
          root,
        ),
        front,
      }),
    );
  fc.assert(
    fc.property(anyState, (state) => {
      const query = new URLSearchParams(stateToQuery(state).toString());
      expect(stateFromQuery(query)).toEqual({ ok: true, value: state });
    }),
  );
});

test('a spot that does not sound the root gives way to the nearest one on its string that does', () => {
  const read = stateFromQuery(new URLSearchParams('root=C&at=6.2'));
  expect(read).toMatchObject({ ok: true, value: { key: { root: 'C' }, at: { string: 6, fret: 8 } } });
});

test('tags and notes go with a chart in its address; those that cannot be kept are refused, and named', () => {
  const draft = {
    name: '',
    tags: ['deck, upper', 'F♯ & C♯'],
    notes: 'Slow.\n\n“Then” = fast?',
    state: FIRST_STATE,
  };
  const query = new URLSearchParams(draftToQuery(draft).toString());
  expect(draftFromQuery(query)).toEqual({ ok: true, value: draft });
  const odd = draftFromQuery(new URLSearchParams({ tag: 'x'.repeat(31) }));
  expect(odd).toMatchObject({ ok: false, error: { field: 'tags[0]' } });
});

test('an address with a part of a state fills the rest', () => {
  const read = stateFromQuery(new URLSearchParams('root=Bb&at=5.1'));
  expect(read).toEqual({
    ok: true,
    value: { ...FIRST_STATE, key: { ...FIRST_STATE.key, root: 'Bb' }, at: { string: 5, fret: 1 } },
  });
});

test('addresses that were written before layouts told their own words are still read', () => {
  const read = (word: string) => {
    const state = stateFromQuery(new URLSearchParams(`layout=${word}`));
    return state.ok && state.value.layout;
  };
  expect(read('count.3.3.2')).toEqual({ kind: 'count', counts: [3, 3, 2] });
  expect(read('inPosition.little.every')).toEqual({
    kind: 'inPosition',
    school: 'little',
    every: true,
  });
  expect(read('relay.12.3')).toEqual({ kind: 'relay', notes: 12, perString: 3 });
  expect(read('skip.3.1.1d.4u')).toEqual({
    kind: 'skip',
    perString: 3,
    from: 1,
    altered: [
      { degree: 1, by: -1 },
      { degree: 4, by: 1 },
    ],
  });
});

test.each([
  ['root=H', /The root is a note/],
  ['scale=nothing', /This scale is not known/],
  ['at=9.2', /This instrument has 6 strings/],
  ['at=6.99', /The fret is at most|The last fret/],
  ['at=six', /whole number|missing/],
  ['layout=spiral', /This layout is not known/],
  ['layout=count.9', /whole numbers from 1 to 6/],
  ['front=x.5', /whole number/],
  ['strings=E2.A2.X3', /is not a string/],
  ['root=A&neck=99.648.0.3.right', /The number of frets is at most 36/],
])('%s is refused in the player’s terms', (text, problem) => {
  const read = stateFromQuery(new URLSearchParams(text));
  expect(read).toMatchObject({ ok: false, error: { message: expect.stringMatching(problem) } });
});

import {
  type ChartState,
  FIRST_STATE,
  PLAN_AT_FIRST,
  WAYS,
  planFrom,
  planWord,
  type PlanAsked,
} from '@crow-ladder/contract';
import { LIMITS } from '@crow-ladder/core';
import { CLIMBS } from '@crow-ladder/core/climbs';
import { DRILLS } from '@crow-ladder/core/drills';
import { type Option } from '@crow-ladder/core/kinds';
import { MOVES, type MoveSpec } from '@crow-ladder/core/moves';
import { type PlanEnd } from '@crow-ladder/core/plan';
import { LADDER_LIMITS } from '@crow-ladder/core/practice';
import {
  FINGERING_SCHOOLS,
  type NotesPerBeat,
  PICKING_SCHOOLS,
  STRIKES,
  SWING,
  TEMPO,
} from '@crow-ladder/core/run';
import fc, { type Arbitrary } from 'fast-check';
import { type Params } from './task/task.ts';
import * as chords from './features/chords/params.ts';
import * as compare from './features/compare/params.ts';
import { draftToQuery } from './model/addressWords.ts';
import * as formula from './features/formula/params.ts';
import * as ladder from './features/ladder/params.ts';
import * as move from './features/move/params.ts';
import * as practice from './features/practice/params.ts';
import * as shape from './features/shape/params.ts';

/** Any of some ids. */
const idOf = <T extends string>(all: readonly { readonly id: T }[]): Arbitrary<T> =>
  fc.constantFrom(...all.map((it) => it.id));
const whole = (min: number, max: number): Arbitrary<number> => fc.integer({ min, max });
const orNull = <T>(of: Arbitrary<T>): Arbitrary<T | null> => fc.option(of, { nil: null });
const pair = (min: number, max: number): Arbitrary<readonly [number, number]> =>
  fc.tuple(whole(min, max), whole(min, max)).map(([a, b]) => [Math.min(a, b), Math.max(a, b)] as const);
const ref = fc
  .record({ start: whole(0, 11), low: whole(0, 36), nth: whole(0, 3) })
  .map(({ start, low, nth }) => ({ start, low, nth }));

/** Any value of an option. */
function valueOf(option: Option): Arbitrary<unknown> {
  switch (option.type) {
    case 'whole':
      return whole(option.min, option.max);
    case 'wholes':
      return fc.array(whole(option.min, option.max), { minLength: 1, maxLength: option.most });
    case 'choice':
      return fc.constantFrom(...option.values.map((v) => v.id));
    case 'switch':
      return fc.boolean();
    case 'word':
      return fc.constantFrom('', 'n3', 't:drop-d', 'i:abc_D-12', 's:E2.A2.D3.G3.B3.E4', 's:F♯2.C#3');
    case 'altered':
      return fc.uniqueArray(fc.record({ degree: whole(0, 11), by: fc.constantFrom(-1, 1) }), {
        selector: (a) => a.degree,
      });
  }
}
/** Any of some kinds with any of its options. */
const specOf = <S>(
  kinds: readonly { readonly kind: string; readonly options: Readonly<Record<string, Option>> }[],
): Arbitrary<S> =>
  fc
    .constantFrom(...kinds)
    .chain(({ kind, options }) =>
      fc
        .record(Object.fromEntries(Object.entries(options).map(([name, option]) => [name, valueOf(option)])))
        .map((values) => ({ ...values, kind }) as S),
    );

const end: Arbitrary<PlanEnd> = fc.oneof(
  fc.constantFrom<PlanEnd>({ at: 'root' }, { at: 'lowest' }, { at: 'highest' }),
  fc.constantFrom(-4, -1, 1, 4).map((octaves) => ({ at: 'octaves' as const, octaves })),
  fc.record({ string: whole(1, 12), fret: whole(0, 36) }).map((place) => ({ at: 'place' as const, place })),
  ref.map((it) => ({ at: 'position' as const, ref: it })),
);
const plan: Arbitrary<PlanAsked> = fc.record({
  from: end,
  to: end,
  back: fc.boolean(),
  reach: whole(0, 4),
  mm: whole(0, 200),
  strings: orNull(pair(1, LIMITS.strings[1])),
  least: whole(1, 12),
  most: whole(0, 12),
  ways: fc.subarray(WAYS.map((w) => w.id)),
  shifts: whole(-1, 99),
  tempo: whole(30, 300),
});

interface Codec<P> {
  readonly name: string;
  readonly params: Params<P>;
  readonly first: P;
  readonly any: Arbitrary<P>;
  /** Odd words for some names, which mean what stands there at first. */
  readonly odd: readonly string[];
}
const codec = <P>(it: Codec<P>): Codec<unknown> => it as Codec<unknown>;

const CODECS: readonly Codec<unknown>[] = [
  codec<shape.ShapeParams>({
    name: 'shape',
    params: shape.params,
    first: { school: null, down: false, way: 0, slurred: false },
    any: fc.record({
      school: orNull(idOf(FINGERING_SCHOOLS)),
      down: fc.boolean(),
      way: whole(0, shape.WAYS - 1),
      slurred: fc.boolean(),
    }),
    odd: ['way=0', 'way=4', 'way=1.5', 'way=x', 'school=none'],
  }),
  codec<formula.FormulaParams>({
    name: 'formula',
    params: formula.params,
    first: formula.AT_FIRST,
    any: fc.record({
      stage: idOf(formula.STAGES),
      start: whole(0, 11),
      down: fc.boolean(),
      typed: orNull(fc.record({ text: fc.string(), scale: fc.constantFrom('major', 'own:1,b3,5') })),
    }),
    odd: ['stage=x', 'start=0', 'start=-3', 'start=1.5', 'formula=major'],
  }),
  codec<ladder.LadderParams>({
    name: 'ladder',
    params: ladder.params,
    first: ladder.AT_FIRST,
    any: fc.record({
      view: idOf(ladder.VIEWS),
      other: orNull(ref),
      frets: pair(0, LIMITS.frets[1]),
      strings: orNull(pair(1, LIMITS.strings[1])),
      chord: fc.string(),
      cuts: fc
        .uniqueArray(whole(1, LIMITS.frets[1]), { minLength: 1, maxLength: ladder.MOST_CUTS })
        .map((cuts) => cuts.sort((a, b) => a - b)),
      climb: orNull(specOf<NonNullable<ladder.LadderParams['climb']>>(CLIMBS.all())),
      direction: fc.constantFrom('up', 'down', 'both'),
      topTwice: fc.boolean(),
      touch: idOf(STRIKES),
      step: whole(0, 9998),
      plan,
      planned: fc.constant(null),
      pick: whole(0, 8),
    }),
    odd: [
      'look=x',
      'with=1.2.3.4',
      'with=5',
      'with=100.1',
      'hand=5',
      'hand=5.99',
      'hand=-1.4',
      'on=0.3',
      'on=1.13',
      'cut=0',
      'cut=1.2.3.4',
      'climb=none',
      'climb=relay.x',
      'way=x',
      'touch=x',
      'step=0',
      'step=10000',
      'pick=0',
      'pick=10',
      'plan=root.o9.one.0.0.all.1.0.change.-1.100',
    ],
  }),
  codec<move.MoveParams>({
    name: 'move',
    params: move.params,
    first: move.AT_FIRST,
    any: fc
      .record({
        view: idOf(move.views()),
        spec: fc.option(specOf<MoveSpec>(MOVES.all()), { nil: null }),
        step: fc.constantFrom(1, 2, 3),
        before: whole(0, 4),
        drill: fc.constant(null),
        to: fc.constantFrom(null, 't:drop-d', 'i:abc_D-12', 's:E2.A2.D3.G3.B3.E4', 's:F♯2.C#3'),
        order: idOf(move.ORDERS),
        anyStrings: fc.boolean(),
        madeFor: fc.constantFrom(null, 't:standard'),
      })
      .map(({ spec, view, ...rest }) => ({ ...rest, view: spec?.kind ?? view, move: spec })),
    odd: [
      'look=x',
      'move=key.13.whole',
      'move=key.-13.whole',
      'move=key.1,5.whole',
      'move=fog.1',
      'move=mode.n 1',
      'move=strings.0.move',
      'move=strings.13.move',
      'step=0',
      'step=4',
      'before=5',
      'strung=x:1',
      'strung=t:a b',
      'move=capo.7.12',
      'move=capo.37.3',
      'order=x',
      'madefor=standard',
    ],
  }),
  codec<practice.PracticeParams>({
    name: 'practice',
    params: practice.params,
    first: practice.AT_FIRST,
    any: fc
      .record({
        drill: orNull(specOf<NonNullable<practice.PracticeParams['drill']>>(DRILLS.all())),
        on: fc.constantFrom('position', 'ladder', 'climb.relay', 'kept.Gang & way'),
        perBeat: fc.constantFrom<NotesPerBeat>(1, 2, 3, 4, 6),
        set: orNull(whole(TEMPO.least, TEMPO.most)),
        swing: whole(SWING.least, SWING.most),
        touch: idOf(STRIKES),
        begins: fc.constantFrom('down', 'up'),
        accents: fc.boolean(),
        answer: fc.boolean(),
        leave: whole(0, practice.MOST_LEFT),
        chords: orNull(fc.constantFrom('own', 'changes', 'chord.4.3.0.octave')),
        reading: idOf(practice.READINGS),
        say: idOf(practice.SAYINGS),
        choosing: fc.boolean(),
        drone: idOf(practice.DRONES),
        school: idOf(PICKING_SCHOOLS),
        loop: fc.boolean(),
        countIn: fc.boolean(),
        part: orNull(pair(0, 9998)),
        ladder: orNull(
          fc.record({
            to: whole(TEMPO.least, TEMPO.most),
            step: whole(...LADDER_LIMITS.step),
            rounds: whole(...LADDER_LIMITS.rounds),
          }),
        ),
      })
      // A tempo that was set is in the address, where it holds for anything.
      .map(({ set, ...it }) => ({
        ...practice.AT_FIRST,
        ...it,
        ...(set === null ? {} : { tempo: set, setFor: practice.ANYTHING }),
      })),
    odd: [
      'drill=none',
      'drill=groups.9.once',
      'beat=5',
      'swing=49',
      'swing=76',
      'touch=x',
      'answer=no',
      'leave=17',
      'read=x',
      'say=x',
      'drone=x',
      'strokes=x',
      'loop=yes',
      'count=yes',
      'part=0.3',
      'part=4.2',
      'part=1.2.3',
      'climb=301.5.2',
      'climb=29.5.2',
      'climb=160.0.2',
      'climb=160.41.2',
      'climb=160.5.0',
      'climb=160.5.17',
    ],
  }),
];

const queryOf = (written: Readonly<Record<string, string | null>>): URLSearchParams => {
  const query = new URLSearchParams();
  for (const [name, value] of Object.entries(written)) if (value !== null) query.set(name, value);
  return new URLSearchParams(query.toString());
};

test('no task has a word of the chart for one of its own', () => {
  const state: ChartState = {
    ...FIRST_STATE,
    front: { start: 0, low: 5, nth: 0 },
    instrumentId: 'mine',
    chords: [{ type: 'later' }],
    overlays: [{ type: 'later' }],
    others: [FIRST_STATE],
    runs: [{ type: 'unread', was: { type: 'later' } }],
  };
  const words = [...draftToQuery({ state, tags: ['ferry'], notes: 'slow' }).keys()];
  expect(words).toHaveLength(15);
  const tasks = [
    ...CODECS,
    { params: chords.params, first: chords.AT_FIRST },
    { params: compare.params, first: compare.AT_FIRST },
  ];
  for (const { params, first } of tasks)
    expect(
      Object.keys((params as Params<unknown>).write(first)).filter((name) => words.includes(name)),
    ).toEqual([]);
});

describe.each(CODECS)('$name', ({ params, first, any, odd }) => {
  test('whatever is looked at comes back from its address', () => {
    fc.assert(
      fc.property(any, (p) => {
        expect(params.read(queryOf(params.write(p)))).toEqual(p);
      }),
    );
  });

  test('what stands there at first is not in the address', () => {
    expect(params.read(new URLSearchParams())).toEqual(first);
    expect(queryOf(params.write(first)).toString()).toBe('');
  });

  test.each(odd)('%s is read as if it were not there', (words) => {
    expect(params.read(new URLSearchParams(words))).toEqual(first);
  });

  test('any words are read as something that comes back as it is', () => {
    const names = Object.keys(params.write(first));
    const word = fc.oneof(fc.string(), fc.stringMatching(/^[a-z]{0,6}(\.-?\d{1,4}){0,6}$/));
    const words = fc.dictionary(fc.constantFrom(...names, 'front', 'root'), word);
    fc.assert(
      fc.property(words, (of) => {
        const read = params.read(new URLSearchParams(of));
        expect(params.read(queryOf(params.write(read)))).toEqual(read);
      }),
    );
  });
});

test('a tempo of an address lies within its bounds', () => {
  const read = (tempo: string): number => practice.params.read(new URLSearchParams({ tempo })).tempo;
  expect(['30', '300', '96'].map(read)).toEqual([30, 300, 96]);
  expect(['29', '301', '9000', '-5', '96.5', 'x'].map(read)).toEqual(Array(6).fill(practice.AT_FIRST.tempo));
});

describe('what a plan asks', () => {
  test('comes back from its word', () => {
    fc.assert(
      fc.property(plan, (asked) => {
        expect(planFrom(planWord(asked))).toEqual(asked);
      }),
    );
  });

  test.each([
    '',
    'root',
    'moon.o2.one.0.0.all.1.0.change.-1.100',
    'root.o0.one.0.0.all.1.0.change.-1.100',
    'root.o5.one.0.0.all.1.0.change.-1.100',
    'root.o2.one.5.0.all.1.0.change.-1.100',
    'root.o2.one.0.201.all.1.0.change.-1.100',
    'root.o2.one.0.0.0-3.1.0.change.-1.100',
    'root.o2.one.0.0.1-13.1.0.change.-1.100',
    'root.o2.one.0.0.all.0.0.change.-1.100',
    'root.o2.one.0.0.all.13.0.change.-1.100',
    'root.o2.one.0.0.all.1.13.change.-1.100',
    'root.o2.one.0.0.all.1.0.change.-2.100',
    'root.o2.one.0.0.all.1.0.change.100.100',
    'root.o2.one.0.0.all.1.0.change.-1.29',
    'root.o2.one.0.0.all.1.0.change.-1.301',
  ])('“%s” is read as what is asked at first', (word) => {
    expect(planFrom(word)).toEqual(PLAN_AT_FIRST);
  });
});

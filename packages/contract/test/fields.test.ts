import { ALIASES, type Instrument } from '@crow-ladder/core';
import { TEMPO } from '@crow-ladder/core/run';
import { aboutOf, aboutSaid, DEFAULT_SETTINGS, FIRST_STATE, scalesOf, settingsFrom } from '../src/index.ts';
import {
  instrumentChangeSchema,
  instrumentSchema,
  querySchema,
  readChange,
  readDocument,
  keptRoundSchema,
  readDraft,
  roundQuerySchema,
  settingsPatchSchema,
  settingsSchema,
  shapeSchema,
  validate,
} from '../src/schemas.ts';

type Reader = (data: unknown) => ReturnType<typeof validate>;
const by =
  (schema: Parameters<typeof validate>[0]): Reader =>
  (data) =>
    validate(schema, data);
/** The field and the sentence that something is refused by; null where it is taken. */
const refused = (read: Reader, data: unknown): readonly unknown[] | null => {
  const checked = read(data);
  return checked.ok ? null : [checked.error.field, checked.error.message];
};

/** What every field of something takes at its bounds, and what it refuses just beyond them, with the beginning of what is said. */
function bounds(
  read: Reader,
  whole: Readonly<Record<string, unknown>>,
  fields: Readonly<
    Record<
      string,
      { readonly takes: readonly unknown[]; readonly refuses: readonly (readonly [unknown, string])[] }
    >
  >,
): void {
  expect(refused(read, whole)).toBeNull();
  for (const [name, { takes, refuses }] of Object.entries(fields)) {
    for (const value of takes)
      expect([name, value, refused(read, { ...whole, [name]: value })]).toEqual([name, value, null]);
    for (const [value, said] of refuses)
      expect([name, value, ...(refused(read, { ...whole, [name]: value }) ?? [])]).toEqual([
        name,
        value,
        expect.stringMatching(new RegExp(`^${name}(\\[|$)`)),
        expect.stringMatching(new RegExp(`^${said.replace(/[.?]/g, '\\$&')}`)),
      ]);
  }
  // What is not known is no part of it.
  expect(refused(read, { ...whole, mast: 1 })![1]).toBe(
    'There is something here that Crow Ladder does not know: mast.',
  );
}

const six: Instrument = { ...FIRST_STATE.instrument, name: 'saloon six-string' };

test('an instrument is taken within its bounds', () => {
  bounds(
    by(instrumentSchema),
    { ...six },
    {
      name: {
        takes: ['x', 'x'.repeat(80)],
        refuses: [
          ['', 'Give the instrument a name.'],
          [' \u200b ', 'Give the instrument a name.'],
          ['x'.repeat(81), 'The name is at most 80 characters long.'],
          [7, 'The name is text.'],
          [undefined, 'Give the instrument a name.'],
        ],
      },
      tuning: {
        takes: [[40, 45, 50, 55, 59, 64, 69]],
        refuses: [
          [undefined, 'The tuning is missing.'],
          [[40.5, 45, 50, 55], 'A string’s pitch is a whole number'],
          [[40, 45, 50, '55'], 'A string’s pitch is a whole number'],
        ],
      },
      frets: {
        takes: [12, 36],
        refuses: [
          [11, 'The number of frets is at least 12.'],
          [37, 'The number of frets is at most 36.'],
          [22.5, 'The number of frets is a whole number'],
          [undefined, 'The number of frets is missing.'],
        ],
      },
      scaleLength: {
        takes: [400, 1000],
        refuses: [
          [399.9, 'The scale length is at least 400 mm.'],
          [1000.1, 'The scale length is at most 1000 mm.'],
          ['long', 'The scale length is 400 to 1000 mm.'],
          [undefined, 'The scale length is missing.'],
        ],
      },
      capo: {
        takes: [0],
        refuses: [
          [-1, 'The capo is at least 0.'],
          [0.5, 'The capo is a whole number'],
        ],
      },
      handed: {
        takes: ['right', 'left'],
        refuses: [
          ['both', 'An instrument is right- or left-handed.'],
          [undefined, 'Something is missing here'],
        ],
      },
      wound: {
        takes: [0, 6],
        refuses: [
          [-1, 'The number of wound strings is at least 0.'],
          [13, 'The number of wound strings is at most 12.'],
        ],
      },
    },
  );
  // What does not go together is said by its field.
  expect(refused(by(instrumentSchema), { ...six, tuning: [40, 45] })![0]).toBe('tuning');
  expect(refused(by(instrumentChangeSchema), { instrument: { ...six, tuning: [40] }, revision: 1 })![0]).toBe(
    'instrument.tuning',
  );
});

test('a change names the revision that it was made from', () => {
  const draft = { name: 'Fog', tags: [], notes: '', state: FIRST_STATE };
  const from = (least: number) => ({
    revision: {
      takes: [least, Number.MAX_SAFE_INTEGER],
      refuses: [
        [least - 1, `The revision is at least ${least}.`],
        [1.5, 'The revision is a whole number'],
        ['1', 'The revision is a whole number'],
        [undefined, 'The revision is missing.'],
      ] as const,
    },
  });
  // A chart that the server does not have yet has none.
  bounds(readChange, { ...draft, revision: 4 }, from(0));
  bounds(by(instrumentChangeSchema), { instrument: six, revision: 4 }, from(1));
});

test('what a player writes of a chart is taken within its bounds', () => {
  bounds(
    readDraft,
    { name: 'Fog', tags: ['deck'], notes: '', state: FIRST_STATE },
    {
      name: {
        takes: ['x'.repeat(80)],
        refuses: [
          ['', 'Give the chart a name.'],
          ['\u00a0', 'Give the chart a name.'],
          ['x'.repeat(81), 'The name is at most 80'],
        ],
      },
      tags: {
        takes: [[], ['x'.repeat(30)], Array.from({ length: 12 }, (_, i) => `t${i}`)],
        refuses: [
          [['x'.repeat(31)], 'A tag is at most 30'],
          [['a', ' '], 'A tag is empty.'],
          [Array.from({ length: 13 }, () => 't'), 'A chart has at most 12 tags.'],
          [undefined, 'The tags are missing.'],
        ],
      },
      notes: {
        takes: ['', 'x'.repeat(20_000)],
        refuses: [
          ['x'.repeat(20_001), 'The notes is at most 20000'],
          [undefined, 'The notes are missing.'],
        ],
      },
    },
  );
});

test('a round of practice is taken within its bounds, in whatever lengths a beat has', () => {
  const round = {
    drill: 'groups.3.twice',
    shape: 'dorian 6:0 2',
    name: 'groups',
    perBeat: 4,
    tempo: 96,
    clean: true,
    id: 'round-1',
    at: '2026-06-01T20:00:00.000Z',
    day: '2026-06-01',
    ms: 90_000,
    on: {
      chart: 'chart-1',
      chartName: 'Slow Bow Door',
      root: 'F#',
      scale: 'dorian',
      start: 4,
      back: 'root=F%23',
    },
    note: 'with the drummer',
  };
  const perBeat = {
    takes: [1, 2, 3, 4, 6, null],
    refuses: [
      [0, 'Notes a beat are'],
      [5, 'Notes a beat are'],
      [7, 'Notes a beat are'],
      [1.5, 'Notes a beat are'],
    ],
  } as const;
  const drill = {
    takes: ['x'.repeat(200)],
    refuses: [
      [' ', 'Say which drill was played.'],
      ['x'.repeat(201), 'The drill is at most 200'],
    ],
  } as const;
  const shape = {
    takes: ['x'.repeat(400)],
    refuses: [
      ['', 'Say what it was played on.'],
      ['x'.repeat(401), 'The shape is at most 400'],
    ],
  } as const;
  bounds(by(keptRoundSchema), round, {
    drill,
    shape,
    perBeat,
    name: {
      takes: ['x'.repeat(200)],
      refuses: [
        ['', 'Say what was played.'],
        ['x'.repeat(201), 'The name is at most 200'],
      ],
    },
    tempo: {
      takes: [TEMPO.least, TEMPO.most, null],
      refuses: [
        [29, 'The tempo is at least 30.'],
        [301, 'The tempo is at most 300.'],
        [96.5, 'The tempo is a whole number'],
      ],
    },
    clean: {
      takes: [false, null],
      refuses: [
        [undefined, 'Say whether it was clean.'],
        ['yes', 'This cannot be read'],
      ],
    },
    day: {
      takes: ['2024-02-29'],
      refuses: [
        ['2026-13-01', 'A day cannot be read'],
        ['today', 'A day cannot be read'],
      ],
    },
    ms: {
      takes: [0, 21_600_000],
      refuses: [
        [-1, 'The length of a round in ms is at least 0'],
        [21_600_001, 'The length of a round in ms is at most'],
      ],
    },
    on: {
      takes: [null],
      refuses: [[undefined, 'Say what it was played on.']],
    },
    note: {
      takes: ['', 'x'.repeat(500)],
      refuses: [['x'.repeat(501), 'The note is at most 500']],
    },
  });
  bounds(by(roundQuerySchema), { drill: 'groups', shape: 'dorian', perBeat: 6 }, { drill, shape, perBeat });
});

test('settings are taken within their bounds', () => {
  bounds(
    by(settingsSchema),
    { ...DEFAULT_SETTINGS },
    {
      theme: {
        takes: ['system', 'paper', 'stage'],
        refuses: [
          ['dark', 'Pick one of: '],
          [null, 'Something is missing here'],
        ],
      },
      spelling: { takes: ['sharps', 'flats'], refuses: [['both', 'Pick one of: sharps, flats.']] },
      numbering: { takes: ['usual'], refuses: [['none', 'Pick one of: usual, ']] },
      fingering: { takes: ['threeFingers'], refuses: [['none', 'Pick one of: onePerFret']] },
      spanMm: {
        takes: [50, 99.5, 200],
        refuses: [
          [49.9, 'The span is at least 50 mm.'],
          [200.1, 'The span is at most 200 mm.'],
          [NaN, 'The span is a number of mm, 50 to 200.'],
          [undefined, 'The span is missing.'],
        ],
      },
      labels: { takes: ['finger', 'none'], refuses: [['letters', 'Pick one of: degree']] },
      stringOnTop: { takes: ['high', 'low'], refuses: [['mid', 'Pick one of']] },
      handed: { takes: ['instrument', 'right', 'left'], refuses: [['both', 'Pick one of']] },
      frets: { takes: ['true', 'even'], refuses: [['odd', 'Pick one of']] },
      colours: { takes: ['plain', 'degree'], refuses: [['all', 'Pick one of']] },
      letterKeys: {
        takes: [false],
        refuses: [
          ['no', 'This cannot be read'],
          [undefined, 'Something is missing here'],
        ],
      },
      seen: {
        takes: [[], Array.from({ length: 20 }, () => 'x'.repeat(20))],
        refuses: [
          [['x'.repeat(21)], 'This is longer than 20'],
          [Array.from({ length: 21 }, () => 'x'), 'There are more than 20'],
        ],
      },
      windowRecord: {
        takes: [null, 0, 86_400],
        refuses: [
          [-1, 'The record is at least 0 seconds.'],
          [86_401, 'The record is at most a day.'],
          [1.5, 'The record is a whole number'],
          [undefined, 'The record is missing.'],
        ],
      },
      favourites: {
        takes: [Array.from({ length: 60 }, () => 'x'.repeat(120))],
        refuses: [
          [['x'.repeat(121)], 'This is longer than 120'],
          [Array.from({ length: 61 }, () => 'x'), 'At most 60 scales'],
        ],
      },
      ownScales: {
        takes: [[], Array.from({ length: 200 }, () => ({ id: 'own:1,b3,5', name: 'x'.repeat(60) }))],
        refuses: [
          [[{ id: 'dorian', name: 'Fog' }], 'A scale of your own is spelled by its degrees.'],
          [[{ id: 'own:1,H', name: 'Fog' }], 'A scale of your own is spelled by its degrees.'],
          [[{ id: 'own:1,b3,5', name: '' }], 'Give the scale a name.'],
          [[{ id: 'own:1,b3,5', name: 'x'.repeat(61) }], 'The name of a scale is at most 60'],
          [
            [{ id: 'own:1,b3,5', name: 'Fog', more: 1 }],
            'There is something here that Crow Ladder does not know: more.',
          ],
          [Array.from({ length: 201 }, () => ({ id: 'own:1,b3,5', name: 'Fog' })), 'At most 200 scales'],
        ],
      },
    },
  );
  for (const [patch, field] of [
    [{ from: {}, to: { spanMm: 20 } }, 'to.spanMm'],
    [{ from: { theme: 'dark' }, to: {} }, 'from.theme'],
    [{ to: {} }, 'from'],
    [{ from: {} }, 'to'],
  ] as const)
    expect(refused(by(settingsPatchSchema), patch)?.[0]).toBe(field);
  expect(refused(by(settingsPatchSchema), { from: { spanMm: 90 }, to: { spanMm: 91 } })).toBeNull();
});

test('pages of charts are asked for within their bounds', () => {
  bounds(
    by(querySchema),
    { find: '', tag: '', order: 'changed', from: 0 },
    {
      find: {
        takes: ['x'.repeat(200)],
        refuses: [
          ['x'.repeat(201), 'What is looked for is at most 200'],
          [undefined, 'Something is missing here'],
        ],
      },
      tag: { takes: ['x'.repeat(30)], refuses: [['x'.repeat(31), 'The tag is at most 30']] },
      order: {
        takes: ['changed', 'name', 'key', 'made'],
        refuses: [['size', 'Charts are ordered by changed, name, key, made.']],
      },
      from: {
        takes: [0, 100_000],
        refuses: [
          [-1, 'The first chart of a page is at least 0.'],
          [100_001, 'The first chart of a page is at most 100000.'],
          [0.5, 'The first chart of a page is a whole number.'],
          ['x', 'The first chart of a page is a whole number.'],
        ],
      },
    },
  );
});

test('a known shape is a scale and its frets', () => {
  for (const shape of ['dorian 5:0 2 3/4:0 2', 'own:1,b3,5 6:0'])
    expect([shape, refused(by(shapeSchema), shape)]).toEqual([shape, null]);
  for (const odd of ['fog', '', 'x'.repeat(401), 7, null])
    expect(refused(by(shapeSchema), odd)).not.toBeNull();
});

test('ids of before are those of today on a chart’s other instruments, and in settings', () => {
  const { instrument, instrumentId, at, front } = FIRST_STATE;
  const other = (kind: string) => ({ instrument, instrumentId, at, front, layout: { kind, counts: [2] } });
  ALIASES.layout.set('ebb', 'count');
  ALIASES.scale.set('moonlit', 'dorian');
  try {
    const read = readDocument({ ...FIRST_STATE, others: [other('count'), other('ebb')] });
    expect(read).toEqual({ ok: true, value: { ...FIRST_STATE, others: [other('count'), other('count')] } });
    expect(settingsFrom({ favourites: ['moonlit', 'major', 'dorian'] }).favourites).toEqual([
      'dorian',
      'major',
    ]);
    const own = settingsFrom({
      ownScales: [
        { id: 'own:1,#2,5', name: 'Fog' },
        { id: 'own:1,b3,5', name: 'Mist' },
      ],
    });
    expect(own.ownScales).toEqual([{ id: 'own:1,b3,5', name: 'Fog' }]);
  } finally {
    ALIASES.layout.clear();
    ALIASES.scale.clear();
  }
});

test('settings of before lose what is no setting any more, and get what was none then', () => {
  expect(settingsFrom({ spanMm: 88, known: ['x'] } as object)).toEqual({ ...DEFAULT_SETTINGS, spanMm: 88 });
});

test('a list says what a chart is about, with the player’s own name of its scale and the notes as they are spelled', () => {
  const state = { ...FIRST_STATE, key: { root: 'F#', scale: 'own:1,b3,4,b5,b7' } };
  const about = aboutOf(state);
  expect(about).toEqual({
    key: state.key,
    at: state.at,
    layout: state.layout,
    tuning: state.instrument.tuning,
  });
  const own = [{ id: 'own:1,b3,4,b5,b7', name: 'Fog signal' }];
  expect(aboutSaid(about, { ownScales: own, spelling: 'sharps' })).toBe(
    'F♯ Fog signal, string 6 fret 2, three notes per string, E A D G B E',
  );
  expect(aboutSaid(about)).not.toContain('Fog signal');
  expect(scalesOf(['dorian', 'gone', 'own:1,b3,4,b5,b7'], own).map((s) => s.name)).toEqual([
    'Dorian',
    'Fog signal',
  ]);
  const low = { ...about, key: { root: 'C', scale: 'major' }, tuning: [39, 44, 49, 54, 58, 63] };
  expect(aboutSaid(low, { ownScales: [], spelling: 'flats' })).toMatch(/E♭ A♭ D♭ G♭ B♭ E♭$/);
  expect(aboutSaid(low, { ownScales: [], spelling: 'sharps' })).toMatch(/D♯ G♯ C♯ F♯ A♯ D♯$/);
  expect(aboutSaid({ ...about, key: { root: 'F#', scale: 'gone' } })).toBe(
    'F♯ , string 6 fret 2, three notes per string, E A D G B E',
  );
});

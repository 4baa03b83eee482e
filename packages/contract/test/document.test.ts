import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ALIASES } from '@crow-ladder/core';
import {
  type Backup,
  BACKUP_VERSION,
  type ChartState,
  type Checked,
  DEFAULT_SETTINGS,
  DOCUMENT_VERSION,
  FIRST_STATE,
  type NoteAdded,
  type Progression,
  settingsFrom,
} from '../src/index.ts';
import {
  chordPart,
  overlayPart,
  type BackupHead,
  readBackupChart,
  readBackupHead,
  readBackupRound,
  readBackupRow,
  readDocument,
  readDraft,
} from '../src/schemas.ts';

interface V1 {
  readonly charts: readonly { readonly name: string; readonly state: Record<string, unknown> }[];
  readonly settings: Record<string, unknown>;
}
/** What version 1 of the application wrote, by running it. */
const frozen = JSON.parse(readFileSync(join(__dirname, 'frozen/v1-backup.json'), 'utf8')) as V1;
/** What version 2 wrote, by running it. */
const frozen2 = JSON.parse(readFileSync(join(__dirname, 'frozen/v2-backup.json'), 'utf8')) as Backup;
/** A whole backup, read piece by piece. */
function readBackup(json: object): Checked<Backup> {
  const { charts = [], unreadable = [] } = json as Partial<Record<string, unknown[]>>;
  const head = readBackupHead(json as Record<string, unknown>);
  const { practice = [] } = json as { practice?: unknown[] };
  const rounds = practice.map(readBackupRound);
  const pieces = [...(charts ?? []).map(readBackupChart), ...(unreadable ?? []).map(readBackupRow)];
  const wrong = [head, ...pieces, ...rounds].find((it) => !it.ok);
  if (wrong && !wrong.ok) return wrong;
  const values = pieces.map((it) => it.ok && it.value) as never[];
  const taken = {
    charts: values.slice(0, charts?.length),
    unreadable: values.slice(charts?.length),
    practice: rounds.map((r) => r.ok && r.value) as never[],
    cards: [],
    reviews: [],
  };
  return { ok: true, value: { ...(head as { value: BackupHead }).value, ...taken } };
}
const read = (json: unknown): ChartState => {
  const state = readDocument(json);
  if (!state.ok) throw new Error(`${state.error.field}: ${state.error.message}`);
  return state.value;
};
const wrong = (json: unknown) => {
  const state = readDocument(json);
  return state.ok ? null : [state.error.code, state.error.field];
};

test.each(frozen.charts.map((c) => [c.name, c.state] as const))(
  'version 1, %s, means today what it meant',
  (_, old) => {
    const now = read(old);
    expect(now).toMatchObject({
      v: DOCUMENT_VERSION,
      key: { root: old['root'] },
      at: { string: old['string'], fret: old['fret'] },
      layout: old['layout'],
      instrument: old['instrument'],
      instrumentId: old['instrumentId'],
      front: null,
      overlays: [],
      chords: [],
      phrases: [],
      runs: [],
    });
    // What was read is of today's version, and reads as itself.
    expect(read(JSON.parse(JSON.stringify(now)))).toEqual(now);
  },
);

test('the frozen charts hold every layout that version 1 had', () => {
  const kinds = new Set(frozen.charts.map((c) => (c.state['layout'] as { kind: string }).kind));
  expect([...kinds].sort()).toEqual([
    'count',
    'diagonal',
    'fourths',
    'inPosition',
    'pair',
    'reach',
    'regions',
    'relay',
    'single',
    'skip',
  ]);
});

test('a chart is refused by the field that is wrong', () => {
  const with_ = (part: object) => ({ ...FIRST_STATE, ...part });
  expect(wrong(FIRST_STATE)).toBeNull();
  for (const none of [null, [], 'fog', 7]) expect(wrong(none)).toEqual(['invalid', undefined]);
  expect(wrong(with_({ v: 4 }))).toEqual(['newer', 'v']);
  for (const v of [0, -1, 1.5, 'two', null]) expect(wrong(with_({ v }))).toEqual(['invalid', 'v']);
  expect(wrong(with_({ front: { start: 0, low: 1 } }))).toEqual(['invalid', 'front.nth']);
  expect(wrong(with_({ front: undefined }))).toEqual(['invalid', 'front']);
  expect(wrong(with_({ runs: {} }))).toEqual(['invalid', 'runs']);
  for (const part of ['x', null, [1]]) {
    expect(wrong(with_({ runs: [part] }))).toEqual(['invalid', 'runs[0]']);
    expect(wrong(with_({ chords: [part] }))).toEqual(['invalid', 'chords[0]']);
  }
  expect(wrong(with_({ chords: Array(201).fill({}) }))).toEqual(['invalid', 'chords']);
  const unread = { type: 'unread', was: {} };
  expect(wrong(with_({ runs: Array(200).fill(unread) }))).toBeNull();
  expect(wrong(with_({ runs: Array(201).fill(unread) }))).toEqual(['invalid', 'runs']);
  expect(wrong(with_({ mood: 'blue' }))).toEqual(['invalid', undefined]);
  expect(wrong(with_({ at: { string: 6, fret: 2.5 } }))).toEqual(['invalid', 'at.fret']);
  expect(wrong(with_({ instrument: { ...FIRST_STATE.instrument, tuning: [40, 45] } }))).toEqual([
    'invalid',
    'instrument.tuning',
  ]);
  expect(wrong(with_({ instrument: {} }))![1]).toMatch(/^instrument/);
});

test('the root is a note, the scale is known, and both lie where the chart says', () => {
  const at = (root: unknown, string: number, fret: number, scale: unknown = 'dorian', capo = 0) => {
    const instrument = { ...FIRST_STATE.instrument, capo };
    const read = readDocument({ ...FIRST_STATE, key: { root, scale }, at: { string, fret }, instrument });
    return read.ok ? null : [read.error.field, read.error.message];
  };
  expect(at('F#', 6, 2)).toBeNull();
  expect(at('Gb', 6, 14)).toBeNull();
  expect(at('A', 6, 2, 'dorian', 3)).toBeNull();
  expect(at('G', 6, 2)).toEqual(['at.fret', 'String 6 fret 2 does not sound G.']);
  expect(at('F#', 6, 2, 'dorian', 3)).toEqual(['at.fret', 'String 6 fret 2 does not sound F#.']);
  expect(at('D', 6, 22)).toBeNull();
  expect(at('D#', 6, 23)).toEqual(['at.fret', 'The last fret is 22.']);
  expect(at('D', 6, 19, 'dorian', 3)).toBeNull();
  expect(at('D#', 6, 20, 'dorian', 3)).toEqual(['at.fret', 'The last fret is 19.']);
  expect(at('F#', 7, 2)).toEqual(['at.string', 'This instrument has 6 strings.']);
  for (const root of ['H', 7]) expect(at(root, 6, 2)?.[0]).toBe('key.root');
  expect(at(undefined, 6, 2)).toEqual(['key.root', 'The root is missing.']);
  expect(at('F#', 6, 2, 'moonlit')).toEqual([
    'key.scale',
    'This scale is not known: pick one by name, or type its formula.',
  ]);
  expect(at('F#', 6, 2, null)?.[0]).toBe('key.scale');
  expect(wrong({ ...FIRST_STATE, key: { root: 'F#' } })).toEqual(['invalid', 'key.scale']);
  expect(wrong({ ...FIRST_STATE, key: undefined })![1]).toMatch(/^key/);
});

test('optional parts have defaults, and are kept as they are', () => {
  const { v, key, at, layout, front, instrument, instrumentId } = FIRST_STATE;
  expect(read({ v, key, at, layout, front, instrument, instrumentId })).toEqual(FIRST_STATE);
  const kept = { ...FIRST_STATE, overlays: [{ scale: 'dorian', any: { thing: [1, 2] } }] };
  expect(read(kept)).toEqual(kept);
});

test('a scale laid over a chart is read and checked; what else is laid over it is kept as it is', () => {
  const laid = { type: 'scale', scale: 'dorian', above: 3 };
  const state = { ...FIRST_STATE, overlays: [laid, { type: 'of later', lines: [1] }] };
  expect(read(state)).toEqual(state);
  const faulty = (part: object) => wrong({ ...FIRST_STATE, overlays: [{ ...laid, ...part }] });
  expect(faulty({ scale: 'moonlit' })).toEqual(['invalid', 'overlays[0].scale']);
  expect(faulty({ above: 12 })).toEqual(['invalid', 'overlays[0].above']);
  expect(faulty({ more: 1 })?.[0]).toBe('invalid');
});

test('a note played beside the scale is kept, told in an address and checked', () => {
  const note = { type: 'added', above: 6, passing: true };
  const third = { ...note, above: 4, passing: false };
  const moved: (readonly [number, number])[] = [
    [2, 3],
    [5, 6],
  ];
  const state = {
    ...FIRST_STATE,
    overlays: [note, third, { ...third, above: 1, slid: true }, { ...note, above: 9, moved }],
  };
  expect(read(state)).toEqual(state);
  for (const it of state.overlays)
    expect(overlayPart.word.read(overlayPart.word.write(it as NoteAdded))).toEqual(it);
  // A type that every object has by another name is one of later too.
  const later = { ...FIRST_STATE, overlays: [{ type: 'constructor' }], chords: [{ type: 'toString' }] };
  expect(read(later)).toEqual(later);
  const faulty = (part: object) => wrong({ ...FIRST_STATE, overlays: [{ ...note, ...part }] });
  expect(faulty({ above: 0 })).toEqual(['invalid', 'overlays[0].above']);
  expect(faulty({ passing: 'yes' })).toEqual(['invalid', 'overlays[0].passing']);
  for (const pairs of [[[2]], [[2, 13]], [[0, 3]], ['2.3'], 'all', Array.from({ length: 13 }, () => [1, 2])])
    expect(faulty({ moved: pairs })?.[0]).toBe('invalid');
});

test('a chart carries other instruments; each is checked by its own field', () => {
  const other = {
    ...FIRST_STATE,
    at: { string: 7, fret: 2 },
    instrument: { ...FIRST_STATE.instrument, tuning: [35, 40, 45, 50, 55, 59, 64] },
  };
  const { instrument, instrumentId, at, layout, front } = other;
  const seven = { instrument, instrumentId, at, layout, front };
  // Its root need not sound the key: it is found again when it is shown.
  const state = { ...FIRST_STATE, others: [seven] };
  expect(read(state)).toEqual(state);
  expect(wrong({ ...FIRST_STATE, others: [{ ...seven, at: { string: 8, fret: 2 } }] })).toEqual([
    'invalid',
    'others[0]',
  ]);
  expect(wrong({ ...FIRST_STATE, others: [{ ...seven, layout: { kind: 'moonlit' } }] })).toEqual([
    'invalid',
    'others[0].layout',
  ]);
  expect(wrong({ ...FIRST_STATE, others: Array.from({ length: 9 }, () => seven) })).toEqual([
    'invalid',
    'others',
  ]);
});

test('ids of before are read as those of today: renamed scales and layouts, and scales spelled otherwise', () => {
  expect(read({ ...FIRST_STATE, key: { root: 'F#', scale: 'own:1,#2,5' } }).key.scale).toBe('own:1,b3,5');
  ALIASES.scale.set('moonlit', 'dorian');
  ALIASES.layout.set('ebb', 'count');
  try {
    const old = {
      ...FIRST_STATE,
      key: { root: 'F#', scale: 'moonlit' },
      layout: { kind: 'ebb', counts: [3] },
    };
    expect(read(old)).toEqual(FIRST_STATE);
  } finally {
    ALIASES.scale.clear();
    ALIASES.layout.clear();
  }
});

test('a draft names the field with its way through the chart', () => {
  const draft = { name: 'Fog', tags: [], notes: '', state: FIRST_STATE };
  expect(readDraft(draft)).toEqual({ ok: true, value: draft });
  const bad = readDraft({ ...draft, state: { ...FIRST_STATE, at: { string: 9, fret: 2 } } });
  expect(bad).toMatchObject({
    ok: false,
    error: { field: 'state.at.string', message: 'This instrument has 6 strings.' },
  });
  expect(readDraft({ ...draft, state: undefined })).toMatchObject({ ok: false, error: { field: 'state' } });
  expect(readDraft('fog')).toMatchObject({ ok: false });
});

test('the frozen backup of version 1 is brought up whole', () => {
  const backup = readBackup(frozen);
  if (!backup.ok) throw new Error(backup.error.message);
  expect(backup.value.charts).toHaveLength(frozen.charts.length);
  expect(backup.value.known).toEqual(frozen.settings['known']);
  expect(backup.value.settings).toMatchObject({
    theme: 'stage',
    handed: 'instrument',
    ownScales: [{ id: 'own:1,b3,4,b5,b7', name: 'Fog signal' }],
  });
  expect(backup.value.settings).not.toHaveProperty('known');
  expect(readBackup(JSON.parse(JSON.stringify(backup.value)))).toEqual(backup);
  const left = readBackup({ ...frozen, settings: { ...frozen.settings, handed: 'left' } });
  expect(left.ok && left.value.settings.handed).toBe('left');
});

test('the frozen backup of version 2 comes back as it was, with an empty log of practice', () => {
  const { charts, known, settings, instruments } = frozen2;
  expect(frozen2.version).toBe(2);
  expect(charts.length).toBeGreaterThan(5);
  const today = charts.map((chart) => ({ ...chart, state: { ...chart.state, v: DOCUMENT_VERSION } }));
  expect(readBackup(frozen2)).toMatchObject({
    ok: true,
    value: {
      version: BACKUP_VERSION,
      practice: [],
      cards: [],
      reviews: [],
      charts: today,
      known,
      settings,
      instruments,
    },
  });
});

test('a backup is refused whole, with the place of what is wrong', () => {
  const chart = { ...frozen.charts[0]!, state: { ...frozen.charts[0]!.state, fret: 99 } };
  const refused = (backup: object): unknown => {
    const read = readBackup(backup);
    return read.ok ? null : [read.error.code, read.error.field];
  };
  const field = (part: object): unknown => {
    const [code, field] = (refused({ ...frozen, ...part }) ?? []) as [string, string];
    return code === 'backup-invalid' ? field : code;
  };
  for (const none of [{}, { ...frozen, format: 'fog' }])
    expect(refused(none)).toEqual(['backup-invalid', 'format']);
  expect(field({ charts: [frozen.charts[0], chart] })).toBe('charts[1].state.at.fret');
  expect(field({ settings: { ...frozen.settings, ownScales: 'x' } })).toBe('settings.ownScales');
  expect(field({ settings: { ...frozen.settings, favourites: [7] } })).toBe('settings.favourites[0]');
  expect(field({ settings: { ...frozen.settings, ownScales: [{ name: 'Fog' }] } })).toBe(
    'settings.ownScales[0].id',
  );
  expect(field({ settings: { ...frozen.settings, spanMm: 20 } })).toBe('settings.spanMm');
  expect(field({ settings: { ...frozen.settings, theme: null } })).toBe('settings.theme');
  for (const settings of [null, undefined, 'dark', []]) expect(field({ settings })).toBe('settings');
  expect(field({ instruments: [{}] })).toMatch(/^instruments\[0\]/);
  for (const version of ['one', '1', 0, 1.5, null, undefined]) expect(field({ version })).toBe('version');
  expect(refused({ ...frozen, version: BACKUP_VERSION + 1 })).toEqual(['backup-version', 'version']);
});

test('a backup keeps the rows that could not be read, and what was set before a setting existed', () => {
  const whole = readBackup(frozen);
  if (!whole.ok) throw new Error(whole.error.message);
  const now = whole.value;
  const row = { id: 'torn', state: '{', revision: 1, notes: null };
  expect(readBackup({ ...now, unreadable: [row] })).toEqual({
    ok: true,
    value: { ...now, unreadable: [row] },
  });
  const refused = (part: object) => {
    const r = readBackup({ ...now, ...part });
    return r.ok ? null : r.error.field;
  };
  expect(refused({ unreadable: [{ state: '{' }] })).toBe('unreadable[0]');
  expect(refused({ unreadable: [{ id: 7 }] })).toBe('unreadable[0]');
  expect(refused({ unreadable: ['torn'] })).toBe('unreadable[0]');
  expect(refused({ known: ['fog'] })).toBe('known[0]');
  const round = {
    id: 'round-1',
    at: '2026-06-01T20:00:00Z',
    drill: 'groups.3.twice',
    shape: 'dorian 6:0 2 3',
    name: 'groups, Dorian position',
    perBeat: 4,
    tempo: 96,
    clean: true,
  };
  // What was kept before more was written down says the least of it.
  const read = { ...round, day: round.at.slice(0, 10), ms: 0, on: null, note: '' };
  expect(readBackup({ ...now, practice: [round] })).toMatchObject({ ok: true, value: { practice: [read] } });
  for (const [part, field] of [
    [{ tempo: 301 }, 'tempo'],
    [{ tempo: 29.5 }, 'tempo'],
    [{ perBeat: 5 }, 'perBeat'],
    [{ at: 'noon' }, 'at'],
    [{ at: '2026-13-01T20:00:00Z' }, 'at'],
    [{ clean: 1 }, 'clean'],
    [{ drill: ' ' }, 'drill'],
  ] as const)
    expect(refused({ practice: [round, { ...round, ...part }] })).toBe(`practice[1].${field}`);
  const early = Object.fromEntries(Object.entries(now.settings).filter(([name]) => name !== 'colours'));
  expect(readBackup({ ...now, settings: early })).toEqual({
    ok: true,
    value: { ...now, settings: { ...now.settings, colours: 'plain' } },
  });
});

test('settings have defaults, and the ids of today, each once', () => {
  expect(settingsFrom({})).toEqual(DEFAULT_SETTINGS);
  const kept = settingsFrom({ favourites: ['own:1,#2,5', 'own:1,b3,5', 'dorian', 'gone'] });
  expect(kept.favourites).toEqual(['own:1,b3,5', 'dorian', 'gone']);
});

test('what is wrong in a backup is told by its number in its list, a chart by its name as well', () => {
  const chart = frozen2.charts[0]!;
  const told = (it: ReturnType<typeof readBackupChart> | ReturnType<typeof readBackupRow>) =>
    it.ok ? null : [it.error.code, it.error.field, it.error.message];
  expect(told(readBackupChart(chart, 4))).toBeNull();
  expect(told(readBackupChart({ ...chart, name: ' Slow bow ', revision: 0 }, 4))).toEqual([
    'backup-invalid',
    'charts[4].revision',
    expect.stringMatching(/^Chart 5, “Slow bow”: /),
  ]);
  expect(told(readBackupChart({ ...chart, name: 7 }, 0))).toEqual([
    'backup-invalid',
    'charts[0].name',
    expect.stringMatching(/^Chart 1: /),
  ]);
  expect(told(readBackupChart('torn', 0))).toEqual(['backup-invalid', 'charts[0]', expect.any(String)]);
  const long = readBackupChart({ ...chart, name: 'x'.repeat(400) }, 0);
  expect(!long.ok && long.error.message.length).toBeLessThan(200);
  expect(told(readBackupRow({ id: 'a', name: 'x', tags: null, revision: 1 }, 2))).toBeNull();
  for (const row of [{ id: 'a', name: {} }, { id: 'a', more: [1], name: 'x' }, { name: 'no id' }, null])
    expect(told(readBackupRow(row, 2))).toEqual(['backup-invalid', 'unreadable[2]', expect.any(String)]);
  const round = readBackupRound({ id: 'a', tempo: 90 }, 6);
  expect(!round.ok && [round.error.field, round.error.message]).toEqual([
    expect.stringMatching(/^practice\[6\]\./),
    expect.stringMatching(/^Round 7 of the log of practice: /),
  ]);
  expect(!readBackupRound(null, 6).ok && readBackupRound(null, 6)).toMatchObject({
    error: { field: 'practice[6]' },
  });
});

test('lists that are missing in a backup are named; settings that are none are refused', () => {
  const refused = (change: object) => {
    const head = readBackupHead({ ...frozen2, ...change } as never);
    return head.ok ? null : head.error.field;
  };
  expect(refused({})).toBeNull();
  for (const name of ['charts', 'unreadable', 'instruments', 'known'])
    expect([name, refused({ [name]: undefined })]).toEqual([name, name]);
  expect([refused({ settings: 7 }), refused({ settings: null })]).toEqual(['settings', 'settings']);
  const one = { id: 'a', instrument: FIRST_STATE.instrument, updatedAt: frozen2.madeAt };
  expect(refused({ instruments: [one, one] })).toBe('instruments');
  expect(refused({ instruments: [one, { ...one, id: 'b' }] })).toBeNull();
});

test('a layout is refused by the option that is wrong, and by one that it does not have', () => {
  const layout = (spec: unknown) => {
    const state = readDocument({ ...FIRST_STATE, layout: spec });
    return state.ok ? null : [state.error.field, state.error.message];
  };
  expect(layout({ kind: 'count', counts: [3] })).toBeNull();
  for (const none of [null, 'count', undefined]) expect(layout(none)![0]).toBe('layout');
  expect(layout({ kind: 7 })).toEqual(['layout', 'This layout is not known: pick one from the list.']);
  expect(layout({ kind: 'count', counts: [3], sway: 1 })).toEqual([
    'layout.sway',
    'There is something here that Crow Ladder does not know: sway.',
  ]);
  expect(layout({ kind: 'count', counts: [0] })![0]).toBe('layout.counts');
});

test('a progression is kept and told in an address; what is wrong with one is named, and what a later application keeps stays', () => {
  const chord = { above: 5, suffix: '7', degrees: ['1', '3', '5', 'b7'], bass: null };
  const progression = {
    type: 'progression',
    beats: 4,
    bars: [[chord], [chord, { ...chord, above: 7, bass: 4 }]],
    scales: { '5 7': { scale: 'dorian', above: 0 } },
  };
  const state = { ...FIRST_STATE, chords: [progression, { type: 'of later', lines: [1] }] };
  expect(read(state)).toEqual(state);
  expect(chordPart.word.read(chordPart.word.write(progression as Progression))).toEqual(progression);
  expect(chordPart.word.read('{')).toBeNull();
  const faulty = (part: object) => wrong({ ...FIRST_STATE, chords: [{ ...progression, ...part }] });
  expect(faulty({ beats: 1 })).toEqual(['invalid', 'chords[0].beats']);
  expect(faulty({ bars: [] })).toEqual(['invalid', 'chords[0].bars']);
  expect(faulty({ bars: [[]] })).toEqual(['invalid', 'chords[0].bars[0]']);
  expect(faulty({ bars: [[{ ...chord, above: 12 }]] })).toEqual(['invalid', 'chords[0].bars[0][0].above']);
  expect(faulty({ bars: [[{ ...chord, degrees: ['tide'] }]] })).toEqual([
    'invalid',
    'chords[0].bars[0][0].degrees[0]',
  ]);
  expect(faulty({ scales: { '5 7': { scale: 'moonlit', above: 0 } } })?.[0]).toBe('invalid');
  expect(faulty({ more: 1 })?.[0]).toBe('invalid');
});

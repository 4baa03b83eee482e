import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { ALIASES } from '@crow-ladder/core';
import {
  type ChartState,
  DEFAULT_SETTINGS,
  DOCUMENT_VERSION,
  FIRST_STATE,
  settingsFrom,
} from '../src/index.ts';
import { readBackup, readDocument, readDraft } from '../src/schemas.ts';

interface V1 {
  readonly charts: readonly { readonly name: string; readonly state: Record<string, unknown> }[];
  readonly settings: Record<string, unknown>;
}
/** What version 1 of the application wrote, by running it. */
const frozen = JSON.parse(readFileSync(join(__dirname, 'frozen/v1-backup.json'), 'utf8')) as V1;
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
  expect([...kinds].sort()).toEqual(['count', 'diagonal', 'fourths', 'inPosition', 'pair', 'reach', 'regions', 'relay', 'single', 'skip']); // prettier-ignore
});

test('a chart is refused by the field that is wrong', () => {
  const with_ = (part: object) => ({ ...FIRST_STATE, ...part });
  expect(wrong(FIRST_STATE)).toBeNull();
  expect(wrong(null)).toEqual(['invalid', undefined]);
  expect(wrong([])).toEqual(['invalid', undefined]);
  expect(wrong(with_({ v: 3 }))).toEqual(['newer', 'v']);
  for (const v of [0, -1, 1.5, 'two', null]) expect(wrong(with_({ v }))).toEqual(['invalid', 'v']);
  expect(wrong(with_({ front: { start: 0, low: 1 } }))).toEqual(['invalid', 'front.nth']);
  expect(wrong(with_({ front: undefined }))).toEqual(['invalid', 'front']);
  expect(wrong(with_({ runs: {} }))).toEqual(['invalid', 'runs']);
  expect(wrong(with_({ runs: ['x'] }))).toEqual(['invalid', 'runs[0]']);
  expect(wrong(with_({ runs: Array(201).fill({}) }))).toEqual(['invalid', 'runs']);
  expect(wrong(with_({ mood: 'blue' }))).toEqual(['invalid', undefined]);
  expect(wrong(with_({ at: { string: 6, fret: 2.5 } }))).toEqual(['invalid', 'at.fret']);
  expect(wrong(with_({ instrument: { ...FIRST_STATE.instrument, tuning: [40, 45] } }))).toEqual(['invalid', 'instrument.tuning']); // prettier-ignore
  expect(wrong(with_({ instrument: {} }))![1]).toMatch(/^instrument/);
});

test('optional parts have defaults, and are kept as they are', () => {
  const { v, key, at, layout, front, instrument, instrumentId } = FIRST_STATE;
  expect(read({ v, key, at, layout, front, instrument, instrumentId })).toEqual(FIRST_STATE);
  const kept = { ...FIRST_STATE, overlays: [{ scale: 'dorian', any: { thing: [1, 2] } }] };
  expect(read(kept)).toEqual(kept);
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
  expect(bad).toMatchObject({ ok: false, error: { field: 'state.at.string', message: 'This instrument has 6 strings.' } });
  expect(readDraft({ ...draft, state: undefined })).toMatchObject({ ok: false, error: { field: 'state' } });
  expect(readDraft('fog')).toMatchObject({ ok: false });
}); // prettier-ignore

test('the frozen backup of version 1 is brought up whole', () => {
  const backup = readBackup(frozen);
  if (!backup.ok) throw new Error(backup.error.message);
  expect(backup.value.charts).toHaveLength(frozen.charts.length);
  expect(backup.value.known).toEqual(frozen.settings['known']);
  expect(backup.value.settings).toMatchObject({ theme: 'stage', handed: 'instrument', ownScales: [{ id: 'own:1,b3,4,b5,b7', name: 'Fog signal' }] }); // prettier-ignore
  expect(backup.value.settings).not.toHaveProperty('known');
  expect(readBackup(JSON.parse(JSON.stringify(backup.value)))).toEqual(backup);
  const left = readBackup({ ...frozen, settings: { ...frozen.settings, handed: 'left' } });
  expect(left.ok && left.value.settings.handed).toBe('left');
});

test('a backup is refused whole, with the place of what is wrong', () => {
  const chart = { ...frozen.charts[0]!, state: { ...frozen.charts[0]!.state, fret: 99 } };
  const field = (part: object): unknown => {
    const backup = readBackup({ ...frozen, ...part });
    return backup.ok ? null : backup.error.field;
  };
  expect(field({ charts: [frozen.charts[0], chart] })).toBe('charts[1].state.at.fret');
  expect(field({ charts: [frozen.charts[0], frozen.charts[0]] })).toBe('charts');
  expect(field({ settings: { ...frozen.settings, ownScales: 'x' } })).toBe('settings.ownScales');
  expect(field({ settings: { ...frozen.settings, spanMm: 20 } })).toBe('settings.spanMm');
  expect(field({ instruments: [{}] })).toMatch(/^instruments\[0\]/);
  expect(field({ version: 'one' })).toBe('version');
});

test('settings have defaults, and the ids of today, each once', () => {
  expect(settingsFrom({})).toEqual(DEFAULT_SETTINGS);
  const kept = settingsFrom({ favourites: ['own:1,#2,5', 'own:1,b3,5', 'dorian', 'gone'] });
  expect(kept.favourites).toEqual(['own:1,b3,5', 'dorian', 'gone']);
});

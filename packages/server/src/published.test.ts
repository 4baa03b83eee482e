import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { type Backup, chartFileText, type ChartDraft, FIRST_STATE } from '@crow-ladder/contract';
import { published } from '@crow-ladder/contract/published';
import { readBackupChart, readBackupHead, readChartFile } from '@crow-ladder/contract/schemas';
import Ajv, { type ValidateFunction } from 'ajv';
import { type Served, served } from '../test/served.ts';

const folder = join(__dirname, '../../web/public/schema');
const fileAt = (name: string): object =>
  JSON.parse(readFileSync(join(folder, `${name}.json`), 'utf8')) as object;
/** The published schemas as a validator that this project did not write reads them. */
const ajv = new Ajv({ strict: true, strictTypes: false, strictRequired: false });
let takes: Readonly<Record<'chart' | 'backup', ValidateFunction>>;
let demo: Backup;
let it: Served;
beforeAll(async () => {
  takes = { chart: ajv.compile(fileAt('chart')), backup: ajv.compile(fileAt('backup')) };
  it = await served();
  demo = (await it.call<Backup>('GET', '/backup')).body;
});
afterAll(() => it.close());

type Json = null | boolean | number | string | readonly Json[] | { readonly [key: string]: Json };
type Path = readonly (string | number)[];
/** Where everything in it is. */
function* pathsIn(json: Json, path: Path = []): Generator<Path> {
  yield path;
  if (typeof json === 'object' && json !== null)
    for (const [key, value] of Object.entries(json as Record<string, Json>))
      yield* pathsIn(value, [...path, Array.isArray(json) ? Number(key) : key]);
}
/** The same with another value there; nothing there where none is given. */
function put(json: Json, path: Path, value: Json | undefined): Json {
  const [key, ...rest] = path;
  if (key === undefined) return value!;
  const copy = (Array.isArray(json) ? [...(json as readonly Json[])] : { ...(json as object) }) as Record<
    string | number,
    Json
  >;
  if (rest.length || value !== undefined) copy[key] = put(copy[key]!, rest, value);
  else if (Array.isArray(copy)) copy.splice(Number(key), 1);
  else delete copy[key];
  return copy;
}
const at = (json: Json, path: Path): Json =>
  path.reduce<Json>((so, key) => (so as Record<string | number, Json>)[key]!, json);
/** What may stand in a place instead of what does. */
const OTHERS: readonly (Json | undefined)[] = [
  undefined,
  null,
  true,
  -7,
  1.5,
  9999,
  '',
  'other',
  [],
  {},
  { more: 1 },
];

const read = (file: Json): boolean => readChartFile(JSON.stringify(file)).ok;

test('the published schemas are those that the readers have', () => {
  for (const [name, schema] of Object.entries(published())) expect(fileAt(name)).toEqual(schema);
});

test('a backup of the demo and each of its charts as a file are what they say', () => {
  expect(demo.charts.length).toBeGreaterThan(8);
  takes.backup(demo);
  expect(takes.backup.errors).toBeNull();
  for (const chart of demo.charts) {
    const text = chartFileText(chart);
    takes.chart(JSON.parse(text));
    expect(takes.chart.errors).toBeNull();
    const { name, tags, notes, state } = chart;
    expect(readChartFile(text)).toEqual({ ok: true, value: { name, tags, notes, state } });
  }
});

test('whatever in a chart is changed, what the reader takes fits the schema; nearly all of what it refuses does not', () => {
  // One chart with a part of each kind that the demo has.
  const [first] = demo.charts;
  const parts = (of: 'phrases' | 'chords' | 'runs' | 'overlays' | 'others') =>
    demo.charts.flatMap(({ state }) => state[of] as readonly object[]).slice(0, 1);
  const whole = {
    ...first!.state,
    phrases: parts('phrases'),
    chords: parts('chords'),
    runs: parts('runs'),
    overlays: parts('overlays'),
    others: parts('others'),
  } as ChartDraft['state'];
  const file = JSON.parse(chartFileText({ ...first!, state: whole })) as Json;
  expect(read(file)).toBe(true);
  let [taken, refused, told] = [0, 0, 0];
  for (const [n, path] of [...pathsIn(file)].entries()) {
    // Notes of a line are all alike.
    if (!path.length || path.some((key) => typeof key === 'number' && key > 1)) continue;
    for (const value of OTHERS.filter((_, i) => (i + n) % 2 === 0)) {
      const changed = put(file, path, value);
      if (JSON.stringify(changed) === JSON.stringify(file)) continue;
      const fits = takes.chart(changed);
      // What a field of today’s version is brought up from is none of its schema’s business.
      if (read(changed)) {
        taken++;
        if (!fits && !isBroughtUp(path, value))
          throw new Error(`${path.join('.')}: ${JSON.stringify(value)}`);
      } else {
        refused++;
        if (!fits) told++;
      }
    }
  }
  expect(taken).toBeGreaterThan(30);
  expect(refused).toBeGreaterThan(400);
  expect(told / refused).toBeGreaterThan(0.95);
});
/** Whether a chart without this is one of an earlier version, which is brought up, or is kept as what cannot be read. */
const isBroughtUp = (path: Path, value: Json | undefined): boolean =>
  (value === undefined && path.length === 2) || path.includes('runs');

test('a chart of a file is refused in the player’s terms', () => {
  const draft: ChartDraft = { name: 'Fog', tags: [], notes: '', state: FIRST_STATE };
  const told = (text: string): unknown => {
    const is = readChartFile(text);
    return is.ok ? null : [is.error.code, is.error.field, is.error.message];
  };
  expect(told('{"format"')).toEqual([
    'chart-file',
    undefined,
    expect.stringMatching(/^This file is no whole JSON/),
  ]);
  expect(told(JSON.stringify(demo))).toEqual([
    'chart-file',
    'format',
    'This is a backup of a whole library: bring it back under Settings.',
  ]);
  expect(told('[1, 2]')).toEqual(['chart-file', 'format', 'This JSON file holds no chart of Crow Ladder.']);
  const text = chartFileText(draft);
  expect(told(text.replace('"dorian"', '"nowhere"'))).toEqual([
    'invalid',
    'state.key.scale',
    'This scale is not known: pick one by name, or type its formula.',
  ]);
  expect(told(text.replace('"v": 3', '"v": 4'))).toEqual([
    'newer',
    'state.v',
    expect.stringContaining('Update'),
  ]);
  expect(told(text)).toBeNull();
  for (const hostile of [
    '['.repeat(200_000),
    `{"format":"crow-ladder-chart","state":${'['.repeat(100_000)}${']'.repeat(100_000)}}`,
    `{"format":"crow-ladder-chart","name":${'{"a":'.repeat(50_000)}1${'}'.repeat(50_000)}}`,
    text.replace('"Fog"', `"${'x'.repeat(1_000_000)}"`),
    text.replace('"Fog"', '{"__proto__":{"name":"Fog"}}'),
  ])
    expect(readChartFile(hostile).ok).toBe(false);
});

test('an instrument and settings of a backup that the reader refuses fit its schema no more', () => {
  const changed = (path: Path, value: Json): Json => put(demo as unknown as Json, path, value);
  const wrong: readonly (readonly [Path, Json])[] = [
    [['settings', 'spanMm'], 900],
    [['settings', 'theme'], 'pink'],
    [['instruments', 0, 'instrument', 'frets'], 99],
    [['instruments', 0, 'more'], 1],
    [['known'], 'all'],
    [['version'], 9],
  ];
  for (const [path, value] of wrong) {
    const backup = changed(path, value);
    expect(readBackupHead(backup as Record<string, unknown>).ok).toBe(false);
    expect(takes.backup(backup)).toBe(false);
  }
  const chart = changed(['charts', 0, 'state', 'at', 'fret'], 99);
  expect(readBackupChart(at(chart, ['charts', 0]), 0).ok).toBe(false);
  expect(takes.backup(chart)).toBe(false);
});

import {
  BODY_LIMIT,
  CHART_BYTES,
  CHART_LIMITS,
  type ChartDraft,
  DEFAULT_SETTINGS,
  FIRST_STATE,
  type KeptRun,
  LIBRARY_LIMITS,
  MOST_OTHERS,
  MOST_PARTS,
  RUN_NAME,
  SCALE_ID,
  SCALE_NAME,
  type SettingsPatch,
  WAYS,
} from '../src/index.ts';
import {
  readBackupChart,
  readChange,
  readDraft,
  settingsPatchSchema,
  shapeSchema,
  validate,
} from '../src/schemas.ts';
import { LIMITS } from '@crow-ladder/core';

// Limits agree with each other: what one of them lets through no other one refuses.
const bytes = (data: unknown): number => Buffer.byteLength(JSON.stringify(data));
/** A text of a length whose every character takes as many bytes as one can. */
const wide = (length: number): string => '\u1ea0'.repeat(length);
/** The smallest number from 1 up to `most` that is refused. */
function firstRefused(takes: (n: number) => boolean, most: number): number {
  let [low, high] = [0, most + 1];
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (takes(middle)) low = middle;
    else high = middle;
  }
  return high;
}

const instrument = {
  ...FIRST_STATE.instrument,
  name: wide(CHART_LIMITS.name),
  tuning: Array<number>(LIMITS.strings[1]).fill(40),
  wound: LIMITS.strings[1],
  frets: LIMITS.frets[1],
};
const run = (name: string): KeptRun => ({
  type: 'plan',
  name,
  root: 'F#',
  at: { string: 12, fret: 24 },
  plan: {
    from: { at: 'position', ref: { start: 11, low: 36, nth: 10 } },
    to: { at: 'position', ref: { start: 11, low: 36, nth: 11 } },
    back: false,
    reach: 4,
    mm: 120,
    strings: [11, 12],
    least: 12,
    most: 12,
    ways: WAYS.map((way) => way.id),
    shifts: 99,
    tempo: 240,
  },
  pick: 999,
});
/** A chart with the longest of everything that a player types, the most instruments, and `runs` kept climbs with the longest names. */
const largest = (runs: number): ChartDraft => ({
  name: wide(CHART_LIMITS.name),
  tags: Array.from({ length: CHART_LIMITS.tags }, () => wide(CHART_LIMITS.tag)),
  notes: wide(CHART_LIMITS.notes),
  state: {
    ...FIRST_STATE,
    key: { root: 'E', scale: 'dorian' },
    at: { string: 1, fret: 0 },
    instrument,
    others: Array.from({ length: MOST_OTHERS }, () => ({
      instrument,
      instrumentId: 'x'.repeat(12),
      at: { string: 1, fret: 0 },
      layout: FIRST_STATE.layout,
      front: null,
    })),
    runs: Array.from({ length: runs }, () => run(wide(RUN_NAME))),
  },
});

test('the longest of everything that a player types, with the most of everything, is a chart that can be kept and sent', () => {
  const draft = largest(MOST_PARTS);
  const read = readDraft(draft);
  expect(read.ok ? null : read.error).toBeNull();
  expect(bytes(draft)).toBeLessThanOrEqual(CHART_BYTES);
  expect(firstRefused((n) => readDraft(largest(n)).ok, MOST_PARTS + 20)).toBe(MOST_PARTS + 1);
});

const unread = (what: string) => ({ type: 'unread', was: { what } }) as const;
test('the largest chart that is taken can be sent as a change, and what is larger is refused with what to do', () => {
  const draft = (size: number): ChartDraft => ({
    ...largest(0),
    state: { ...largest(0).state, runs: Array.from({ length: 100 }, () => unread('x'.repeat(size))) },
  });
  const first = firstRefused((n) => readDraft(draft(n)).ok, CHART_BYTES);
  const kept = readDraft(draft(first - 1));
  if (!kept.ok) throw new Error(kept.error.message);
  const change = { ...kept.value, revision: Number.MAX_SAFE_INTEGER };
  expect(bytes(change)).toBeLessThanOrEqual(BODY_LIMIT);
  expect(bytes(change)).toBeGreaterThan(CHART_BYTES * 0.99);
  const refused = readDraft(draft(first));
  expect(refused.ok ? null : refused.error).toMatchObject({
    code: 'too-large',
    message: expect.stringMatching(/shorten its notes/),
  });
  // What goes with a chart on its way does not count: it is taken as a change and out of a backup as well.
  const at = '2026-06-01T20:00:00Z';
  expect(readChange(change).ok).toBe(true);
  expect(readBackupChart({ ...change, id: 'x'.repeat(40), createdAt: at, updatedAt: at }, 0).ok).toBe(true);
});

test('the fullest settings can be changed in one request', () => {
  const many = <T>(one: (n: number) => T, takes: (all: readonly T[]) => boolean): readonly T[] =>
    Array.from(
      { length: firstRefused((n) => takes(Array.from({ length: n }, (_, i) => one(i))), 1000) - 1 },
      (_, i) => one(i),
    );
  const takes = (to: object): boolean => validate<SettingsPatch>(settingsPatchSchema, { from: {}, to }).ok;
  const favourites = many(
    () => 'x'.repeat(SCALE_ID),
    (all) => takes({ favourites: all }),
  );
  const ownScales = many(
    () => ({
      id: `own:${['1', 'b2', '2', 'b3', '3', '4', '#4', '5', 'b6', '6', 'b7', '7'].join()}`,
      name: wide(SCALE_NAME),
    }),
    (all) => takes({ ownScales: all }),
  );
  expect(Math.min(favourites.length, ownScales.length)).toBeGreaterThanOrEqual(60);
  const full = { ...DEFAULT_SETTINGS, favourites, ownScales };
  expect(takes(full)).toBe(true);
  expect(bytes({ from: full, to: full })).toBeLessThanOrEqual(BODY_LIMIT);
});

test('the longest shape and the most shapes are taken one by one, and no list of them is ever sent', () => {
  const shape = (length: number): string => `d ${'1'.repeat(length - 2)}`;
  const longest = firstRefused((n) => n < 3 || validate(shapeSchema, shape(n)).ok, 2000) - 1;
  expect(longest).toBe(400);
  expect(bytes({ shape: shape(longest) })).toBeLessThan(BODY_LIMIT);
  expect(LIBRARY_LIMITS.known).toBeGreaterThanOrEqual(2000);
});

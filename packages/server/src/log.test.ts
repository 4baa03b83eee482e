import {
  ALL_OF_LOG,
  type Backup,
  dayAfter,
  dayAt,
  type Demo,
  ELSEWHERE,
  FIRST_STATE,
  type KeptRound,
  type LogPage,
  type LogParts,
  type LogQuery,
  type LogSum,
  RECALLED,
  type Recall,
  type RecallAhead,
  type Review,
  type TempoDay,
  WEAK,
} from '@crow-ladder/contract';
import { columnsIn, LOG_COLUMNS, type LogCells, logReader } from '@crow-ladder/contract/logFile';

import { cardsOf, type NextLesson } from '@crow-ladder/core/asking';
import fc from 'fast-check';
import papa from 'papaparse';
import { drawn } from '../../../scripts/thorough.ts';
import { type Served, served } from '../test/served.ts';
import { openDatabase } from './database.ts';
import { clearDemo, isPlayed } from './demo.ts';
import { logPage, logSum } from './log.ts';
import { down, up } from './migrations/009_log.ts';
import { addRound } from './practice.ts';
import { addCards, addReview, nextToLearn, recallOn } from './recall.ts';

const HAND = { school: 'onePerFret', spanMm: 110 } as const;
const DAY = '2026-06-01';
let it: Served;
beforeEach(async () => {
  it = await served();
});
afterEach(() => it.close());
const get = async <T>(path: string): Promise<T> => (await it.call<T>('GET', path)).body;
const inQuery = (query: Partial<LogQuery>): string => new URLSearchParams(Object.entries(query)).toString();

const KEYS = [
  ['F#', 'dorian'],
  ['Bb', 'minor-pentatonic'],
  ['B', 'harmonic-minor'],
] as const;
const roundOf = (nth: number, part: Partial<KeptRound> = {}): KeptRound => {
  const [root, scale] = KEYS[nth % 3]!;
  const day = dayAfter(DAY, nth % 17);
  return {
    id: `round-${nth}`,
    at: `${day}T${String(10 + (nth % 9))}:00:00.000Z`,
    day,
    drill: nth % 4 ? 'groups.3.once' : 'straight',
    shape: `${scale} shape`,
    name: 'groups of three, “up”',
    perBeat: 2,
    tempo: 80 + (nth % 30),
    clean: nth % 5 === 0 ? null : nth % 4 > 0,
    ms: 1000 * nth + 7,
    on:
      nth % 7 === 6
        ? null
        : {
            chart: `chart-${nth % 3}`,
            chartName: `Deck ${nth % 3}`,
            root,
            scale,
            start: nth % 4,
            back: 'root=F%23&tempo=90',
          },
    note: nth % 6 ? '' : '=1+1, "late"\nand low',
    ...part,
  };
};
const CARDS = cardsOf(
  {
    root: 'F#',
    scale: 'dorian',
    layout: FIRST_STATE.layout,
    instrument: FIRST_STATE.instrument,
    ref: { start: 0, low: 2, nth: 0 },
  },
  ['roots', 'position', 'seams'],
  HAND,
).map((card) => ({ ...card, made: `${DAY}T12:00:00Z`, rested: false }));
const reviewOf = (nth: number, part: Partial<Review> = {}): Review => ({
  id: `answer-${nth}`,
  cardId: CARDS[nth % CARDS.length]!.id,
  at: `${dayAfter(DAY, nth % 11)}T20:00:00.000Z`,
  day: dayAfter(DAY, nth % 11),
  grade: ((nth % 4) + 1) as Review['grade'],
  ms: 3000 + nth * 10_000,
  strings: [1, 2, 3, 6].slice(0, 1 + (nth % 4)),
  missed: nth % 4 === 0 ? [2, 3].slice(nth % 2) : [],
  ...part,
});

test('what a part of the log comes to is what plain counting finds, whatever it is narrowed to', async () => {
  const { db } = it;
  await addCards(CARDS, db);
  const rounds = Array.from({ length: 60 }, (_, i) => roundOf(i));
  const reviews = Array.from({ length: 40 }, (_, i) => reviewOf(i));
  for (const round of rounds) await addRound(round, db);
  for (const review of reviews) await addReview(review, db);
  const anyDay = fc.option(
    fc.integer({ min: -2, max: 20 }).map((n) => dayAfter(DAY, n)),
    { nil: '' },
  );
  const anyQuery: fc.Arbitrary<LogQuery> = fc.record({
    from: anyDay,
    to: anyDay,
    chart: fc.constantFrom('', '', 'chart-1', 'gone'),
    what: fc.constantFrom('', '', 'groups', 'straight', RECALLED),
    tag: fc.constantFrom('', '', '', 'no such'),
  });
  const share = <T>(all: readonly T[], id: (one: T) => string, bad: (one: T) => boolean) => {
    const by = new Map<string, { of: number; not: number }>();
    for (const one of all) {
      const is = by.get(id(one)) ?? { of: 0, not: 0 };
      by.set(id(one), { of: is.of + 1, not: is.not + (bad(one) ? 1 : 0) });
    }
    return by;
  };
  await fc.assert(
    fc.asyncProperty(anyQuery, async (query) => {
      const inTime = ({ day }: { day: string }): boolean =>
        (!query.from || day >= query.from) && (!query.to || day <= query.to);
      const played = rounds.filter(
        (r) =>
          inTime(r) &&
          !query.tag &&
          (!query.chart || r.on?.chart === query.chart) &&
          (!query.what || r.drill.split('.')[0] === query.what),
      );
      const recalled = reviews.filter(
        (r) => inTime(r) && !query.chart && !query.tag && (!query.what || query.what === RECALLED),
      );
      const sum = await logSum(db, query);
      const days = [...new Set([...played, ...recalled].map(({ day }) => day))].sort();
      expect(sum.days.map(({ day }) => day)).toEqual(days);
      for (const is of sum.days) {
        const on = played.filter(({ day }) => day === is.day);
        const answered = recalled.filter(({ day }) => day === is.day);
        expect(is).toEqual({
          day: is.day,
          playedMs: on.reduce((ms, r) => ms + r.ms, 0),
          rounds: on.length,
          clean: on.filter((r) => r.clean).length,
          recalledMs: answered.reduce((ms, r) => ms + Math.min(r.ms, 120_000), 0),
          answers: answered.length,
          known: answered.filter((r) => r.grade > 1).length,
        });
      }
      const went = [
        ...played
          .filter((r) => r.clean !== null && r.on)
          .map((r) => ({ key: `${r.on!.root} ${r.on!.scale}`, bad: !r.clean })),
        ...recalled.map((r) => ({ key: 'F# dorian', bad: r.grade === 1 })),
      ];
      const keys = share(
        went,
        (w) => w.key,
        (w) => w.bad,
      );
      for (const { root, scale, of, not } of sum.keys)
        expect(keys.get(`${root} ${scale}`)).toEqual({ of, not });
      expect(sum.keys).toHaveLength([...keys.values()].filter((k) => k.of >= WEAK.of && k.not).length);
      const shares = sum.keys.map((k) => k.not / k.of);
      expect([...shares].sort((a, b) => b - a)).toEqual(shares);
      for (const { string, of, not } of sum.strings) {
        expect(of).toBe(recalled.filter((r) => r.strings.includes(string)).length);
        expect(not).toBe(recalled.filter((r) => r.missed.includes(string)).length);
      }
      // All days come once, a page after the other, and all rounds of each.
      const seen: string[] = [];
      let before = '';
      for (let page = await logPage(db, query, before); ; page = await logPage(db, query, before)) {
        for (const day of page.days) {
          expect(day.rounds.map(({ id }) => id).sort()).toEqual(
            played
              .filter((r) => r.day === day.day)
              .map(({ id }) => id)
              .sort(),
          );
          expect(day.recalled?.answers ?? 0).toBe(recalled.filter((r) => r.day === day.day).length);
          seen.push(day.day);
        }
        before = page.days.at(-1)?.day ?? '';
        if (!page.earlier) break;
      }
      expect(seen).toEqual([...days].reverse());
    }),
    { numRuns: drawn(500) },
  );
});

test('the log is narrowed to tags of charts, tells its parts, and the tempo of one thing day by day', async () => {
  const [chart] = await it.charts();
  const on = { ...roundOf(1).on!, chart: chart!.id };
  for (const [id, clean, tempo] of [
    ['a', true, 90],
    ['b', false, 110],
    ['c', true, 95],
  ] as const)
    await it.call('PUT', `/practice/${id}`, roundOf(1, { id, on, clean, tempo }));
  await it.call('PUT', '/practice/d', roundOf(2, { id: 'd', drill: 'straight' }));
  const tag = chart!.tags[0]!;
  expect(
    (await get<LogPage>(`/log?${inQuery({ tag })}`)).days.flatMap((d) => d.rounds.map((r) => r.id)),
  ).toEqual(['c', 'b', 'a']);
  expect((await get<LogSum>(`/log/sum?${inQuery({ tag: 'no such' })}`)).days).toEqual([]);
  const parts = await get<LogParts>('/log/parts');
  expect(parts.drills).toEqual(['groups', 'straight']);
  expect(parts.tags).toContain(tag);
  expect(parts.charts.map(({ id }) => id)).toEqual(['chart-2', chart!.id]);
  const { drill, shape } = roundOf(1);
  expect(
    await get<TempoDay[]>(`/practice/tempos?${new URLSearchParams({ drill, shape, perBeat: '2' })}`),
  ).toEqual([{ day: roundOf(1).day, clean: 95, tried: 110 }]);
  // One that was judged later stands as it was judged, with its note.
  await it.call('PATCH', '/practice/b', { note: 'late' });
  await it.call('PUT', '/practice/b', roundOf(1, { id: 'b', on, clean: true, tempo: 110 }));
  const [day] = (await get<LogPage>(`/log?${inQuery({ tag })}`)).days;
  expect(day!.rounds.find(({ id }) => id === 'b')).toMatchObject({ clean: true, note: 'late' });
  for (const wrong of ['from=June', `tag=${'x'.repeat(99)}`, 'before=1'])
    expect((await it.call('GET', `/log?${wrong}`)).status).toBe(422);
  expect((await it.call('PATCH', '/practice/gone', { note: '' })).status).toBe(404);
});

test('the log goes out as a table and as JSON, and the table comes in again as it was; no cell is computed', async () => {
  await addCards(CARDS, it.db);
  const rounds = Array.from({ length: 12 }, (_, i) => roundOf(i));
  await it.call('PUT', '/practice', { rounds });
  for (let i = 0; i < 5; i++) await addReview(reviewOf(i), it.db);
  const csv = await (await it.send('GET', '/api/log.csv')).text();
  const { data } = papa.parse<LogCells>(csv, { header: true, skipEmptyLines: true });
  expect(Object.keys(data[0]!)).toEqual([...LOG_COLUMNS]);
  expect(csv).not.toMatch(/(^|,)"?=1/m);
  const read = logReader();
  const lines = data.map(read);
  const byTime = [...rounds].sort((a, b) => a.at.localeCompare(b.at));
  expect(lines.flatMap((line) => (line.is === 'round' ? [line.round] : []))).toEqual(byTime);
  expect(lines.filter(({ is }) => is === 'answer')).toHaveLength(5);
  const json = JSON.parse(await (await it.send('GET', '/api/log.json')).text()) as {
    rounds: KeptRound[];
    answers: { name: string; grade: number }[];
  };
  expect(json.rounds).toEqual(byTime);
  expect(json.answers.map(({ grade }) => grade)).toEqual([1, 2, 3, 4, 1]);
  expect(json.answers[0]!.name).toBe(CARDS[0]!.name);
  // A part of it goes out as it is narrowed.
  const part = await (await it.send('GET', `/api/log.csv?${inQuery({ chart: 'chart-1' })}`)).text();
  expect(
    papa.parse<LogCells>(part, { header: true, skipEmptyLines: true }).data.map((r) => r['chart id']),
  ).toEqual(Array.from({ length: 4 }, () => 'chart-1'));
  const none = await (await it.send('GET', `/api/log.json?${inQuery({ from: '2030-01-01' })}`)).text();
  expect(JSON.parse(none)).toMatchObject({ rounds: [], answers: [] });
  // What is there already stays as it is.
  await it.call('PATCH', '/practice/round-3', { note: 'better' });
  await it.call('PUT', '/practice', { rounds });
  const backup = await get<Backup>('/backup');
  expect(backup.practice.map(({ note }) => note)).toEqual(
    rounds.map(({ note }, i) => (i === 3 ? 'better' : note)),
  );
  // Everything of rounds and answers is in a backup, and comes back.
  expect((await it.restore(backup)).status).toBe(200);
  const again = await get<Backup>('/backup');
  expect([again.practice, again.reviews, again.cards]).toEqual([
    backup.practice,
    backup.reviews,
    backup.cards,
  ]);
  expect(again.reviews[0]).toEqual(reviewOf(0));
});

test('a log that was kept elsewhere comes in line by line, each once, and says what of it is left out', () => {
  const text = [
    'Date;Exercise;Duration;BPM;Notes',
    '2026-05-30;Spider on the car deck;12,5;90 bpm;slow',
    '2026-05-30 21:15;Spider on the car deck;5;;',
    '2026-05-30;Spider on the car deck;12,5;90 bpm;slow',
    '30.5.2026;Spider;5;90;',
    '2026-05-31;;5;90;',
    '2026-05-31;Alternate;long;90;',
    '2026-05-31;Alternate;5;fast;',
    '2026-05-31;Alternate;5;9000;',
    '2026-13-31;Alternate;5;90;',
  ].join('\n');
  const { data } = papa.parse<string[]>(text);
  const lines = (): ReturnType<ReturnType<typeof logReader>>[] => {
    const columns = columnsIn(data[0]!)!;
    const read = logReader();
    return data
      .slice(1)
      .map((cells) => read(Object.fromEntries(data[0]!.map((head, i) => [columns.get(head), cells[i]]))));
  };
  const rounds = lines().flatMap((line) => (line.is === 'round' ? [line.round] : []));
  expect(rounds).toMatchObject([
    {
      day: '2026-05-30',
      name: 'Spider on the car deck',
      drill: ELSEWHERE,
      ms: 750_000,
      tempo: 90,
      perBeat: null,
      clean: null,
      note: 'slow',
    },
    { at: '2026-05-30T21:15:00.000Z', tempo: null, ms: 300_000 },
    { tempo: 90 },
  ]);
  expect(new Set(rounds.map(({ id }) => id)).size).toBe(3);
  expect(lines().flatMap((line) => (line.is === 'round' ? [line.round.id] : []))).toEqual(
    rounds.map(({ id }) => id),
  );
  expect(lines().flatMap((line) => (line.is === 'left' ? [line.why] : []))).toEqual([
    '“30.5.2026” is no day: write it as 2026-06-01.',
    'It does not say what was played.',
    '“long” is no number of minutes up to 360.',
    '“fast” is no tempo: write quarter notes a minute, as 90.',
    'The tempo is at most 300.',
    expect.stringContaining('cannot be read'),
  ]);
  expect([columnsIn(['a', 'b']), columnsIn(['day']), columnsIn([])]).toEqual([null, null, null]);
});

test('what a page’s wrong clock says of a day is put right, and what comes ahead is counted from the day', async () => {
  const at = new Date(Date.now() - 3_600_000).toISOString();
  const today = dayAt(Date.parse(at), 0);
  await it.call('PUT', '/cards', { cards: CARDS.slice(0, 3) });
  for (const [i, { id }] of CARDS.slice(0, 3).entries())
    await it.call('PUT', `/reviews/r${i}`, {
      ...reviewOf(0, { cardId: id, at, day: i ? today : '2031-01-01', grade: 3 }),
      id: `r${i}`,
    });
  await it.call('PUT', '/practice/r', roundOf(1, { id: 'r', at, day: '2019-01-01' }));
  const backup = await get<Backup>('/backup');
  expect(backup.reviews.map(({ day }) => day)).toEqual([today, today, today]);
  expect(backup.practice.map(({ day }) => day)).toEqual([today]);
  const ahead = await get<RecallAhead>(`/recall/ahead?day=${today}`);
  expect(ahead).toMatchObject({ cards: 3, known: 3, firm: 0 });
  const { due } = await it
    .db('cards')
    .whereNotNull('due')
    .first('due')
    .then((row) => row!);
  const n = ahead.due.findIndex((many) => many > 0);
  expect([dayAfter(today, n), ahead.due[n], ahead.due.length]).toEqual([due, 3, 30]);
  // Long after, all of it comes on the first day.
  expect((await get<RecallAhead>(`/recall/ahead?day=${dayAfter(today, 400)}`)).due[0]).toBe(3);
});

test('the demo has three weeks of practice with gaps up to the day of the first start, and goes with it', async () => {
  const { db } = await openDatabase(':memory:');
  const today = dayAt(Date.now(), -new Date().getTimezoneOffset());
  const { days, keys } = await logSum(db, ALL_OF_LOG);
  expect([days[0]!.day >= dayAfter(today, -22), days.at(-1)!.day < today]).toEqual([true, true]);
  expect(days.length).toBeGreaterThan(8);
  expect(days.length).toBeLessThan(20);
  expect(keys.length).toBeGreaterThan(2);
  const { due, fresh } = await recallOn(today, db);
  expect(due + fresh).toBeGreaterThan(4);
  expect(await isPlayed(db)).toBe(false);
  expect((await nextToLearn(HAND, db))?.why).toBeTruthy();
  // A card that the player answered stays, with the player's answer.
  const card = (await db('cards').first())!;
  await addReview(reviewOf(0, { cardId: card.id, day: today, at: new Date().toISOString() }), db);
  expect(await isPlayed(db)).toBe(true);
  await clearDemo(db, new Date().toISOString());
  expect((await logSum(db, ALL_OF_LOG)).days).toMatchObject([{ day: today, rounds: 0, answers: 1 }]);
  // It is remembered by that answer alone.
  expect(await db('cards').select('id', 'first')).toEqual([{ id: card.id, first: today }]);
  await db.destroy();
});

test('the page is told of the demo and of what is the player’s own', async () => {
  expect((await get<Recall>(`/recall?day=${DAY}`)).own).toBe(false);
  expect(await get<NextLesson | null>('/recall/next')).toBeNull();
  await it.call('PUT', '/practice/own', roundOf(1, { id: 'own' }));
  expect((await get<Recall>(`/recall?day=${DAY}`)).own).toBe(true);
  await it.call<Demo>('POST', '/demo/clear');
  expect((await get<LogSum>('/log/sum')).days).toHaveLength(1);
});

test('rounds and answers of before come through: each gets the day that it was where nothing is known of the place', async () => {
  const { db } = await openDatabase(':memory:');
  await clearDemo(db, `${DAY}T12:00:00Z`);
  await down(db);
  const old = { drill: 'up', shape: 'box', name: 'Box', per_beat: 2, tempo: 90, clean: 1 };
  await db('practice').insert([
    { ...old, id: 'late', at: '2026-06-02T02:30:00.000Z' },
    { ...old, id: 'early', at: '2026-06-01T05:00:00.000Z' },
  ] as never);
  await up(db);
  const page = await logPage(db, ALL_OF_LOG, '');
  expect(
    page.days.map(({ day, rounds }) => [day, rounds.map(({ id, ms, on, note }) => [id, ms, on, note])]),
  ).toEqual([
    [
      '2026-06-01',
      [
        ['late', 0, null, ''],
        ['early', 0, null, ''],
      ],
    ],
  ]);
  await db.destroy();
});

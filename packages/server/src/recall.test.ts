import {
  type Backup,
  dayAfter,
  DEFAULT_SETTINGS,
  FIRST_STATE,
  type KeptCard,
  type Recall,
  type RecallAhead,
  type Review,
} from '@crow-ladder/contract';
import { rememberedAfter } from '@crow-ladder/contract/schedule';
import { cardsOf } from '@crow-ladder/core/asking';
import { type Served, served } from '../test/served.ts';
import { intake } from './backup/intake.ts';
import { passingLibrary } from './database.ts';
import { cardRow, recallOn } from './recall.ts';

const HAND = { school: DEFAULT_SETTINGS.fingering, spanMm: DEFAULT_SETTINGS.spanMm };
const BASE = {
  root: 'F#',
  scale: 'dorian',
  layout: FIRST_STATE.layout,
  instrument: FIRST_STATE.instrument,
  ref: { start: 0, low: 2, nth: 0 },
};
const cards = (root: string): readonly KeptCard[] =>
  cardsOf({ ...BASE, root }, ['roots', 'position', 'seams', 'degrees'], HAND).map((card): KeptCard => ({
    ...card,
    made: '2026-06-01T20:00:00Z',
    rested: false,
  }));
const CARDS = cards('F#');
const DAY = '2026-06-01';
let it: Served;
beforeEach(async () => {
  it = await served();
});
afterEach(() => it.close());
const recall = async (day: string): Promise<Recall> =>
  (await it.call<Recall>('GET', `/recall?day=${day}`)).body;
let nth = 0;
const answer = async (cardIs: string, day: string, grade: Review['grade'], more: Partial<Review> = {}) => {
  const id = `a${nth++}`;
  const review = { cardId: cardIs, at: `${day}T12:00:00Z`, day, grade, ms: 4000, ...more };
  const { status } = await it.call('PUT', `/reviews/${id}`, review);
  return { id, status };
};

test('eight new cards come a day, those that are due before them, none while more than thirty are due', async () => {
  expect(CARDS.length).toBeGreaterThan(40);
  expect((await it.call('PUT', '/cards', { cards: CARDS })).status).toBe(200);
  expect((await it.call('PUT', '/cards', { cards: CARDS })).status).toBe(200);
  let now = await recall(DAY);
  expect(now).toMatchObject({ due: 0, fresh: 8, waiting: CARDS.length - 8, all: CARDS.length, next: null });
  expect(now.cards.map(({ id }) => id)).toEqual(CARDS.slice(0, 8).map(({ id }) => id));
  for (const { id } of now.cards.slice(0, 3)) await answer(id, DAY, 3);
  now = await recall(DAY);
  expect([now.due, now.fresh, now.cards.length]).toEqual([0, 5, 5]);
  // Good today is due tomorrow at the earliest.
  expect(now.next! > DAY).toBe(true);
  const then = await recall(now.next!);
  expect([then.due, then.fresh]).toEqual([3, 8]);
  expect(then.cards.slice(0, 3).map(({ id }) => id)).toEqual(CARDS.slice(0, 3).map(({ id }) => id));
  expect(then.cards[0]!.remembered).toEqual(rememberedAfter([{ day: DAY, grade: 3 }]));
  for (const { id } of CARDS.slice(3, 34)) await answer(id, DAY, 1);
  expect(await recall(dayAfter(DAY, 1))).toMatchObject({ due: 31, fresh: 0 });
});

test('an answer comes once, and can be taken back; a card rests, is asked again, and goes with its answers', async () => {
  await it.call('PUT', '/cards', { cards: CARDS });
  const [first, second] = CARDS;
  const { id } = await answer(first!.id, DAY, 3);
  const again = { cardId: first!.id, at: `${DAY}T12:00:00Z`, day: DAY, grade: 3, ms: 4000 };
  expect((await it.call('PUT', `/reviews/${id}`, again)).status).toBe(200);
  const due = (await recall(dayAfter(DAY, 3))).cards[0]!;
  expect([due.id, due.remembered!.reviews]).toEqual([first!.id, 1]);
  expect((await it.call('DELETE', `/reviews/${id}`)).status).toBe(200);
  expect((await it.call('DELETE', `/reviews/${id}`)).status).toBe(404);
  expect(await recall(DAY)).toMatchObject({ due: 0, fresh: 8 });
  expect((await it.call('PATCH', `/cards/${first!.id}`, { rested: true })).status).toBe(200);
  let now = await recall(DAY);
  expect([now.rested, now.cards[0]!.id]).toEqual([1, second!.id]);
  expect(now.resting).toEqual([{ id: first!.id, name: first!.name }]);
  await it.call('PATCH', `/cards/${first!.id}`, { rested: false });
  now = await recall(DAY);
  expect([now.rested, now.cards[0]!.id]).toEqual([0, first!.id]);
  await answer(first!.id, DAY, 2);
  expect((await it.call('DELETE', `/cards/${first!.id}`)).status).toBe(200);
  expect((await answer(first!.id, DAY, 2)).status).toBe(404);
  expect((await it.call<Backup>('GET', '/backup')).body.reviews).toEqual([]);
});

test('what cannot be is refused with its field, and nothing is kept', async () => {
  const [card] = CARDS;
  const wrong: readonly (readonly [string, string, object, string])[] = [
    [
      'PUT',
      '/cards',
      { cards: [{ ...card, card: { ...card!.card, kind: 'nothing' } }] },
      'cards[0].card.kind',
    ],
    ['PUT', '/cards', { cards: [{ ...card, card: { ...card!.card, ref: null } }] }, 'cards[0].card.ref'],
    ['PUT', '/reviews/x', { cardId: 'x', at: `${DAY}T12:00:00Z`, day: 'today', grade: 3, ms: 1 }, 'day'],
    ['PUT', '/reviews/x', { cardId: 'x', at: `${DAY}T12:00:00Z`, day: DAY, grade: 5, ms: 1 }, 'grade'],
    ['PATCH', `/cards/${card!.id}`, { rested: 'yes' }, 'rested'],
  ];
  for (const [method, path, body, field] of wrong)
    expect(await it.call(method, path, body)).toMatchObject({ status: 422, body: { error: { field } } });
  expect(await it.call('GET', '/recall?day=2026-13-01')).toMatchObject({
    status: 422,
    body: { error: { field: 'day' } },
  });
  expect(await recall(DAY)).toMatchObject({ all: 0, cards: [] });
});

test('usual times are those of right answers, by kind', async () => {
  await it.call('PUT', '/cards', { cards: CARDS });
  const spots = CARDS.filter(({ card }) => card.kind === 'note-here');
  for (const [i, { id }] of spots.slice(0, 5).entries())
    await answer(id, DAY, i < 2 ? 1 : 3, { ms: 1000 * (i + 1) });
  expect((await recall(DAY)).usual).toEqual({ 'note-here': 4000 });
});

/** What is due, without what only the library knows. */
const withoutOwn = ({ own: _, ...rest }: Recall) => rest;

test('a backup carries cards and answers, in their order; brought back, they are remembered as before; one of before there were any opens', async () => {
  await it.call('PUT', '/cards', { cards: CARDS });
  for (const [i, { id }] of CARDS.slice(0, 12).entries())
    for (const [n, gap] of [0, 2, 5].slice(0, 1 + (i % 3)).entries())
      await answer(id, dayAfter(DAY, gap), n === 1 ? 1 : 3);
  await it.call('PATCH', `/cards/${CARDS[5]!.id}`, { rested: true });
  const backup = (await it.call<Backup>('GET', '/backup')).body;
  expect(backup.cards.map(({ id }) => id)).toEqual(CARDS.map(({ id }) => id));
  expect(backup.reviews).toHaveLength(12 + 8 + 4);
  const taken = async (file: object) => {
    const db = await passingLibrary(':memory:');
    const taking = intake(db);
    const { error } = await taking.take(Buffer.from(JSON.stringify(file)));
    const end = await taking.end();
    const day = dayAfter(DAY, 9);
    const then = end.ok ? await recallOn(day, db) : null;
    await db.destroy();
    return { error: error ?? (end.ok ? null : end.error), then };
  };
  expect(await taken(backup)).toEqual({ error: null, then: withoutOwn(await recall(dayAfter(DAY, 9))) });
  const before = Object.fromEntries(
    Object.entries(backup).filter(([list]) => list !== 'cards' && list !== 'reviews'),
  );
  expect((await taken({ ...before, version: 3 })).then).toMatchObject({ all: 0 });
  const was = await recall(dayAfter(DAY, 9));
  for (const { id } of CARDS) await it.call('DELETE', `/cards/${id}`);
  expect((await it.restore(backup)).status).toBe(200);
  expect(await recall(dayAfter(DAY, 9))).toEqual(was);
  expect((await it.call<Backup>('GET', '/backup')).body.reviews).toEqual(backup.reviews);
  const [review] = backup.reviews;
  expect((await taken({ ...backup, reviews: [review, review] })).error).toMatchObject({ field: 'reviews' });
  expect((await taken({ ...backup, reviews: [{ ...review, cardId: 'gone' }] })).error).toMatchObject({
    message: 'An answer in this backup is to a card that is not in it.',
  });
  expect((await taken({ ...backup, cards: [{ ...backup.cards[0], id: '' }] })).error).toMatchObject({
    field: 'cards[0].id',
  });
});

test('of ten thousand cards those are given that are due longest, and what comes ahead is all of the others', async () => {
  const { db } = it;
  const many = 10_000;
  const rows = Array.from({ length: many }, (_, i) => ({
    ...cardRow({ ...CARDS[i % CARDS.length]!, id: `many-${i}` }),
    // Each kind of card, some of them at rest, due from before the day to long after it, the last ones new.
    ...(i < 9000 && {
      due: dayAfter(DAY, ((i * 7919) % 400) - 1),
      first: dayAfter(DAY, -400),
      remembered: JSON.stringify({
        stability: 30,
        difficulty: 5,
        reviews: 3,
        lapses: 0,
        last: dayAfter(DAY, -10),
        due: dayAfter(DAY, ((i * 7919) % 400) - 1),
      }),
    }),
    rested: i % 49 === 0 ? 1 : 0,
  }));
  await db.batchInsert('cards', rows, 50);
  const awake = rows.filter(({ rested }) => !rested);
  const due = awake
    .filter((row) => row.due !== null && row.due <= DAY)
    .map(({ id, due: on }, i) => ({ id, key: `${on} ${String(i).padStart(5, '0')}` }))
    .sort((a, b) => a.key.localeCompare(b.key));
  const now = await recall(DAY);
  expect(now).toMatchObject({ all: many, due: due.length, rested: many - awake.length });
  // More than thirty are due: nothing new comes.
  expect([due.length > 30, now.fresh]).toEqual([true, 0]);
  expect(now.cards.map(({ id }) => id)).toEqual(due.slice(0, 40).map(({ id }) => id));
  const ahead = (await it.call<RecallAhead>('GET', `/recall/ahead?day=${DAY}`)).body;
  expect(ahead.cards).toBe(awake.filter((row) => row.due !== null).length);
  ahead.due.forEach((n, i) =>
    expect([i, n]).toEqual([
      i,
      i === 0 ? due.length : awake.filter((row) => row.due === dayAfter(DAY, i)).length,
    ]),
  );
});

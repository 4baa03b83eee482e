import {
  type KeptCard,
  type KeptRound,
  reviewNow,
  roundNow,
  type Review,
  type RoundQuery,
  type SettingsPatch,
} from '@crow-ladder/contract';
import {
  cardsSchema,
  daySchema,
  keptRoundSchema,
  restSchema,
  reviewSchema,
  roundNoteSchema,
  roundQuerySchema,
  roundsSchema,
  settingsPatchSchema,
  shapeSchema,
  validate,
} from '@crow-ladder/contract/schemas';
import { type Context, Hono } from 'hono';
import { type Library } from '../library.ts';
import { Refused } from '../refused.ts';
import { body, conflict, found, idGiven, idOf, json, right } from './reading.ts';

/** What is a player's and no chart's: settings, known shapes, the log of practice. */
export function playerOn(library: Library): Hono {
  const api = new Hono();
  api.get('/settings', async (c) => c.json(await library.settings()));
  api.patch('/settings', async (c) => {
    const patch = await body(c, (data) => validate<SettingsPatch>(settingsPatchSchema, data));
    const changed = await library.changeSettings(patch);
    if (!changed) throw conflict('setting', 'read', await library.settings());
    return c.json(changed);
  });
  api.get('/known', async (c) => c.json(await library.known()));
  for (const [method, change] of [
    ['POST', library.addKnown],
    ['DELETE', library.removeKnown],
  ] as const)
    api.on(method, '/known', async (c) => {
      const asked = (await json(c)) as { shape?: unknown } | null;
      const shape = validate<string>(shapeSchema, asked?.shape);
      if (!shape.ok) throw new Refused(422, { ...shape.error, field: 'shape' });
      await change(shape.value);
      return c.json({ ok: true });
    });
  /** What was practised, as an address asks for it. */
  const thing = (c: Context): RoundQuery => {
    const { drill, shape, perBeat } = c.req.query();
    const asked = { drill, shape, perBeat: perBeat === undefined ? null : Number(perBeat) };
    return right(validate<RoundQuery>(roundQuerySchema, asked));
  };
  api.get('/practice', async (c) => c.json(await library.practised(thing(c))));
  api.get('/practice/tempos', async (c) => c.json(await library.tempoDays(thing(c))));
  api.get('/practice/last', async (c) => c.json(await library.practisedLast()));
  api.get('/practice/things', async (c) => c.json(await library.practisedThings()));
  api.put('/practice/:id', async (c) => {
    const id = idGiven(c);
    const round = await body(c, (data) =>
      validate<KeptRound>(keptRoundSchema, roundNow({ ...(data as object), id })),
    );
    await library.addRound(round);
    return c.json({ ok: true });
  });
  api.put('/practice', async (c) => {
    const { rounds } = await body(c, (data) =>
      validate<{ readonly rounds: readonly KeptRound[] }>(roundsSchema, data),
    );
    await library.addRounds(rounds);
    return c.json({ ok: true });
  });
  api.patch('/practice/:id', async (c) => {
    const { note } = await body(c, (data) => validate<{ readonly note: string }>(roundNoteSchema, data));
    return c.json({ ok: found(await library.noteRound(idOf(c), note), 'round of practice') });
  });
  api.delete('/practice/:id', async (c) =>
    c.json({ ok: found(await library.removeRound(idOf(c)), 'round of practice') }),
  );
  const dayOf = (c: Context): string => {
    const day = validate<string>(daySchema, c.req.query('day'));
    if (!day.ok) throw new Refused(422, { ...day.error, field: 'day' });
    return day.value;
  };
  api.get('/recall', async (c) => c.json(await library.recall(dayOf(c))));
  api.get('/recall/ahead', async (c) => c.json(await library.recallAhead(dayOf(c))));
  api.get('/recall/next', async (c) => c.json(await library.nextToLearn()));
  api.put('/cards', async (c) => {
    const { cards } = await body(c, (data) =>
      validate<{ readonly cards: readonly KeptCard[] }>(cardsSchema, data),
    );
    await library.addCards(cards);
    return c.json({ ok: true });
  });
  api.patch('/cards/:id', async (c) => {
    const { rested } = await body(c, (data) => validate<{ readonly rested: boolean }>(restSchema, data));
    return c.json({ ok: found(await library.restCard(idOf(c), rested), 'card') });
  });
  api.delete('/cards/:id', async (c) => c.json({ ok: found(await library.removeCard(idOf(c)), 'card') }));
  api.put('/reviews/:id', async (c) => {
    const id = idGiven(c);
    const review = await body(c, (data) =>
      validate<Review>(reviewSchema, reviewNow({ ...(data as object), id })),
    );
    return c.json({ ok: found(await library.addReview(review), 'card') });
  });
  api.delete('/reviews/:id', async (c) =>
    c.json({ ok: found(await library.removeReview(idOf(c)), 'answer') }),
  );
  return api;
}

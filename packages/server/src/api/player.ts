import {
  type KeptCard,
  type KeptRound,
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
  roundQuerySchema,
  settingsPatchSchema,
  shapeSchema,
  validate,
} from '@crow-ladder/contract/schemas';
import { Hono } from 'hono';
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
  api.get('/practice', async (c) => {
    const { drill, shape, perBeat } = c.req.query();
    const asked = validate<RoundQuery>(roundQuerySchema, { drill, shape, perBeat: Number(perBeat) });
    return c.json(await library.practised(right(asked)));
  });
  api.get('/practice/things', async (c) => c.json(await library.practisedThings()));
  api.put('/practice/:id', async (c) => {
    const id = idGiven(c);
    const round = await body(c, (data) => validate<KeptRound>(keptRoundSchema, { ...(data as object), id }));
    await library.addRound(round);
    return c.json({ ok: true });
  });
  api.delete('/practice/:id', async (c) =>
    c.json({ ok: found(await library.removeRound(idOf(c)), 'round of practice') }),
  );
  api.get('/recall', async (c) => {
    const day = validate<string>(daySchema, c.req.query('day'));
    if (!day.ok) throw new Refused(422, { ...day.error, field: 'day' });
    return c.json(await library.recall(day.value));
  });
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
    const review = await body(c, (data) => validate<Review>(reviewSchema, { ...(data as object), id }));
    return c.json({ ok: found(await library.addReview(review), 'card') });
  });
  api.delete('/reviews/:id', async (c) =>
    c.json({ ok: found(await library.removeReview(idOf(c)), 'answer') }),
  );
  return api;
}

import { type KeptRound, type RoundQuery, type SettingsPatch } from '@crow-ladder/contract';
import {
  keptRoundSchema,
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
  return api;
}

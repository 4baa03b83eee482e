import { type Context, Hono } from 'hono';
import { type Backups } from '../backup/backups.ts';
import { Refused } from '../refused.ts';
import { idOf, isJson } from './reading.ts';

/** The id of a backup that is brought back, given by who brings it. */
function restoreId(c: Context): string {
  const id = idOf(c);
  if (/^[\w-]{8,40}$/.test(id)) return id;
  throw new Refused(422, {
    code: 'bad-id',
    message: 'The id of a restore is 8 to 40 letters, digits, hyphens or underscores.',
  });
}

/** The whole library in a file, out and in. */
export function restoresOn(backups: Backups): Hono {
  const api = new Hono();
  api.get('/backup', async (c) => {
    c.header('Content-Type', 'application/json; charset=UTF-8');
    c.header(
      'Content-Disposition',
      `attachment; filename="crow-ladder-${new Date().toISOString().slice(0, 10)}.json"`,
    );
    // Its head alone is answered without reading anything.
    if (c.req.method === 'HEAD') return c.body(null);
    return c.body(await backups.out(c.req.raw.signal));
  });
  api.put('/restores/:id', async (c) => {
    const id = restoreId(c);
    isJson(c);
    return c.json(await backups.take(id, c.req.raw.body));
  });
  api.get('/restores/:id', async (c) => c.json(await backups.stateOf(restoreId(c))));
  api.post('/restores/:id/replace', async (c) => c.json(await backups.replace(restoreId(c))));
  api.delete('/restores/:id', async (c) => {
    await backups.drop(restoreId(c));
    return c.json({ ok: true });
  });
  return api;
}

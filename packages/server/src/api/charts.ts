import { type ChartLook, type ChartOrder } from '@crow-ladder/contract';
import {
  lookSchema,
  type PageQuery,
  type PhrasePageQuery,
  phraseQuerySchema,
  querySchema,
  readChange,
  readDraft,
  validate,
} from '@crow-ladder/contract/schemas';
import { type Context, Hono } from 'hono';
import { type Library } from '../library.ts';
import { Refused } from '../refused.ts';
import { body, conflict, found, idGiven, idOf, keyOf, libraryMeant, right } from './reading.ts';

/** The page of charts that an address asks for. */
function pageOf(c: Context): PageQuery {
  const { find = '', tag = '', order = 'changed', from = '0' } = c.req.query();
  const query = { find, tag, order: order as ChartOrder, from: /^\d+$/.test(from) ? Number(from) : from };
  return right(validate<PageQuery>(querySchema, query));
}

/** A chart as it stands; what of it cannot be read is said. */
export async function readableChart(library: Library, id: string) {
  const read = found(await library.readChart(id), 'chart');
  if (read.ok) return read.value;
  throw new Refused(422, {
    code: 'unreadable',
    message: `This chart cannot be read: ${read.error.message}`,
  });
}

/** Charts, in lists and one by one. */
export function chartsOn(library: Library): Hono {
  const api = new Hono();
  api.get('/charts', async (c) => {
    const { from, ...query } = pageOf(c);
    return c.json(await library.charts(query, from));
  });
  api.get('/phrases', async (c) => {
    const { find = '', degrees = '', chord = '', most = '0', from = '0' } = c.req.query();
    const whole = (text: string): number | string => (/^\d+$/.test(text) ? Number(text) : text);
    const asked = { find, degrees, chord, most: whole(most), from: whole(from) };
    const { from: first, ...query } = right(validate<PhrasePageQuery>(phraseQuerySchema, asked));
    return c.json(await library.phrases(query, first));
  });
  api.get('/tags', async (c) => c.json(await library.tags()));
  api.post('/charts', async (c) => {
    const draft = await body(c, readDraft);
    return c.json(await library.createChart(draft, await keyOf(c)), 201);
  });
  api.get('/charts/:id', async (c) => c.json(await readableChart(library, idOf(c))));
  api.get('/charts/:id/raw', async (c) => c.json(found(await library.rawChart(idOf(c)), 'chart')));
  api.put('/charts/:id', async (c) => {
    const id = idGiven(c);
    const changed = await library.changeChart(id, await body(c, readChange), libraryMeant(c));
    if (!changed) throw conflict('chart', 'opened', await readableChart(library, id));
    return c.json(changed);
  });
  api.put('/charts/:id/look', async (c) => {
    const look = await body(c, (data) => validate<ChartLook>(lookSchema, data));
    return c.json({ ok: found(await library.lookAt(idOf(c), look), 'chart') });
  });
  return api;
}

import { BODY_LIMIT } from '@crow-ladder/contract';
import { type Context, Hono } from 'hono';
import { etag } from 'hono/etag';
import { methodNotAllowed } from 'hono/method-not-allowed';
import { type Backups } from '../backup/backups.ts';
import { type Library } from '../library.ts';
import { answered, limited, noSuchMethod, OTHER_LIBRARY, Refused } from '../refused.ts';
import { binOn } from './bin.ts';
import { chartsOn } from './charts.ts';
import { instrumentsOn } from './instruments.ts';
import { logOn } from './log.ts';
import { playerOn } from './player.ts';
import { libraryMeant } from './reading.ts';
import { restoresOn } from './restores.ts';

/** The API under /api. Errors are `{ error: { code, message, field? } }`. */
export function apiOn(library: Library, backups: Backups): Hono {
  const api = new Hono();
  api.use(methodNotAllowed({ app: api, onMethodNotAllowed: (c, methods) => noSuchMethod(c, methods) }));
  for (const path of [
    '/charts/*',
    '/instruments/*',
    '/settings',
    '/known',
    '/practice/*',
    '/recall/*',
    '/cards/*',
    '/reviews/*',
    '/log/*',
  ]) {
    api.use(path, limited(BODY_LIMIT));
    // A browser asks for what it has already with its tag, and is told in a few bytes that it is the same.
    api.use(path, etag());
    // What says of which library it is changes no other. Its body is read first, so that nothing is waited for after that.
    api.use(path, async (c: Context, next) => {
      const meant = libraryMeant(c);
      if (meant !== undefined && c.req.method !== 'GET') {
        await c.req.text();
        if (meant !== (await library.identity())) throw OTHER_LIBRARY;
      }
      return next();
    });
  }
  api.get('/health', (c) => c.json({ ok: true }));
  for (const part of [
    chartsOn(library),
    instrumentsOn(library),
    binOn(library),
    playerOn(library),
    logOn(library),
    restoresOn(backups),
  ])
    api.route('/', part);
  api.all('*', (c) =>
    answered(new Refused(404, { code: 'no-such-address', message: 'There is nothing at this address.' }), c),
  );
  api.onError(answered);
  return api;
}

import { Hono } from 'hono';
import { compress } from 'hono/compress';
import { apiOn } from './api/api.ts';
import { type Backups } from './backup/backups.ts';
import { type Door } from './door.ts';
import { type LookAtFiles } from './files.ts';
import { guard, headers, standing } from './guard.ts';
import { type Library } from './library.ts';
import { pagesOf } from './pages.ts';

/** What an application is served with. */
export interface Serving {
  /** The folder of the built interface. */
  readonly webRoot: string;
  /** The names that it answers to. */
  readonly hosts: ReadonlySet<string>;
  readonly files: LookAtFiles;
  /** Whether the server was told to stop: what comes from then on is refused. */
  readonly isStopping: () => boolean;
  readonly backups: Backups;
  /** Who is let in. */
  readonly door: Door;
  /** Which interface is served: it is another one after an update. */
  readonly version: string;
}

/** The whole application on one port: the API, and the built interface with its addresses. */
export function appOn(library: Library, serving: Serving): Hono {
  const { webRoot, hosts, files, isStopping, backups, door, version } = serving;
  const app = new Hono();
  // Asked for before anything is waited for, it tells of a reader that goes away from then on.
  app.use('/api/backup', (c, next) => (void c.req.raw.signal, next()));
  app.use(headers);
  app.use(guard(hosts));
  app.use(standing(files, isStopping, backups.settled));
  app.use(compress());
  app.use('/api/*', async (c, next) => {
    c.header('Crow-Ladder-Version', version);
    c.header('Cache-Control', 'no-cache');
    await next();
    const is = await library.identity().catch(() => null);
    if (is !== null) c.header('Crow-Ladder-Library', is);
  });
  app.use('/api/*', door.keep);
  app.route('/api/visit', door.visits);
  app.route('/api', apiOn(library, backups));
  app.route('/', pagesOf(webRoot));
  app.notFound((c) => c.text('There is nothing at this address.', 404));
  return app;
}

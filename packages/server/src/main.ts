import { existsSync } from 'node:fs';
import { relative, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { serve } from '@hono/node-server';
import { appOn } from './app.ts';
import { databasePath, openDatabase } from './database.ts';
import { libraryOn } from './library.ts';

const host = process.env['CROW_LADDER_HOST'] ?? '127.0.0.1';
const port = Number(process.env['CROW_LADDER_PORT'] ?? 4780);
const web = fileURLToPath(new URL('../../web/dist', import.meta.url));
const from = relative(process.cwd(), web) || '.';

const { db, demo } = await openDatabase();
console.log(
  demo ? 'Loaded the demo charts.' : 'Opened the library.',
  `It is kept in ${resolve(databasePath())}.`,
);
if (!existsSync(web)) console.log('The interface is not built; only /api answers.');

const server = serve({ fetch: appOn(libraryOn(db), from).fetch, hostname: host, port }, () =>
  console.log(`Crow Ladder is ready: http://${host}:${port}`),
);
server.on('error', (error: NodeJS.ErrnoException) => {
  console.error(
    error.code === 'EADDRINUSE'
      ? `Port ${port} is taken: stop what uses it, or set CROW_LADDER_PORT to another one.`
      : error.message,
  );
  process.exit(1);
});
for (const signal of ['SIGINT', 'SIGTERM'] as const)
  process.on(signal, () => {
    server.close();
    void db.destroy().finally(() => process.exit(0));
  });

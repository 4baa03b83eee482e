import { createHash } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import { type AddressInfo, createServer } from 'node:net';
import { join, relative } from 'node:path';
import { fileURLToPath } from 'node:url';
import { BIN_DAYS } from '@crow-ladder/contract';
import { serve, type ServerType } from '@hono/node-server';
import { appOn } from './app.ts';
import { backupsOf, dropRemains } from './backup/backups.ts';
import { checkLibrary } from './check.ts';
import { lookAtPlace, openDatabase, USUAL_PATH } from './database.ts';
import { type Environment, environmentOf, startSentence } from './environment.ts';
import { doorOf, ownPasscode } from './door.ts';
import { filesOf } from './files.ts';
import { addressesOf, hostNames, isLoopback } from './guard.ts';
import { libraryOn } from './library.ts';
import { lockLibrary, tellHolder } from './lock.ts';

/** How long an address may be: a new chart that is not saved yet is in its own, with all that it holds. */
const ADDRESS_BYTES = 1_000_000;
/** How long a connection waits for its next request, in ms: one that comes just as the connection is ended is lost. */
const KEEP_ALIVE_MS = 65_000;
/** Longest that requests under way may take once the server is told to stop, in ms. */
const STOP_MS = 4000;
/** How often connections that have nothing under way any more are closed meanwhile, in ms. */
const IDLE_MS = 100;
const web = fileURLToPath(new URL('../../web/dist', import.meta.url));

/** What the interface is known by: its page names every part of it by what is in that part. */
function versionOf(folder: string): string {
  const page = join(folder, 'index.html');
  return createHash('sha256')
    .update(existsSync(page) ? readFileSync(page) : '')
    .digest('hex')
    .slice(0, 12);
}

/** Ends with a sentence for who started the server; what nobody foresaw is told with what it says of itself. */
function stopped(error: unknown, path: string): never {
  console.error(startSentence(error, path) ?? `Crow Ladder could not start: ${(error as Error).message}`);
  process.exit(1);
}

/** A port that nothing has at the moment. */
const freePort = (host: string): Promise<number> =>
  new Promise((found, failed) => {
    const probe = createServer();
    probe.once('error', failed);
    probe.listen(0, host, () => {
      const { port } = probe.address() as AddressInfo;
      probe.close(() => found(port));
    });
  });

async function start(environment: Environment): Promise<void> {
  const { host, hosts, database, share, passcode } = environment;
  const port = environment.port || (await freePort(host));
  const path = database ?? USUAL_PATH;
  const address = `http://${host.includes(':') ? `[${host}]` : host}:${port}`;
  lookAtPlace(path);
  const unlock = share ? () => undefined : lockLibrary(path);
  process.on('exit', unlock);
  console.log('Opening the library.');
  const { db, isNew } = await openDatabase(path, undefined, process.argv.includes('--new'));
  await tellHolder(db, { pid: process.pid, at: address });
  console.log(isNew ? 'Loaded the demo charts.' : 'It is open.', `It is kept in ${path}.`);
  if (!existsSync(web)) console.log('The interface is not built; only /api answers.');
  dropRemains(path, share);
  const backups = backupsOf(path, db);
  const library = libraryOn(db, backups.settled);
  const { waiting, since } = await library.begin();
  if (waiting)
    console.log(
      `By the clock of this computer ${waiting} of the things in the bin have been there for more than ${BIN_DAYS} days, by that of the last start (${since?.slice(0, 10) ?? 'unknown'}) they have not: they stay until the next start.`,
    );
  // Beyond this computer nobody comes in without a passcode.
  const asked = passcode ?? (isLoopback(host) ? null : await ownPasscode(db));
  let stopping = false;
  const app = appOn(library, {
    webRoot: relative(process.cwd(), web) || '.',
    hosts: hostNames(host, hosts),
    files: filesOf(path, db),
    isStopping: () => stopping,
    backups,
    door: doorOf(db, asked, port),
    version: versionOf(web),
  });
  const serverOptions = { maxHeaderSize: ADDRESS_BYTES, keepAliveTimeout: KEEP_ALIVE_MS };
  const server: ServerType = serve({ fetch: app.fetch, hostname: host, port, serverOptions }, () => {
    console.log(`Crow Ladder is ready: ${address}`);
    if (!isLoopback(host))
      console.log(
        'From other devices:',
        addressesOf(host)
          .map((a) => `http://${a}:${port}`)
          .join(' or '),
      );
    if (asked !== null && passcode === null) console.log(`Passcode: ${asked}`);
  });
  // Once nothing reads or replaces the library any more, everything is in its own file, and none of the work beside it.
  let closing = false;
  const close = (code: number): void => {
    if (closing) return;
    closing = true;
    void backups
      .settled()
      .then(() => backups.close())
      .then(() => db.raw('PRAGMA wal_checkpoint(TRUNCATE)'))
      .catch(() => undefined)
      .then(() => db.destroy())
      .finally(() => process.exit(code));
  };
  server.on('error', (error: NodeJS.ErrnoException) => {
    console.error(
      error.code === 'EADDRINUSE'
        ? `Port ${port} is taken: stop what uses it, or set CROW_LADDER_PORT to another one.`
        : error.code === 'EADDRNOTAVAIL' || error.code === 'ENOTFOUND'
          ? `This computer has no address ${host}: set CROW_LADDER_HOST to one that it has, or leave it out.`
          : error.code === 'EACCES'
            ? `Port ${port} may not be used: set CROW_LADDER_PORT to one from 1024 up.`
            : `Crow Ladder could not be served: ${error.message}`,
    );
    close(1);
  });
  for (const signal of ['SIGINT', 'SIGTERM'] as const)
    process.on(signal, () => {
      if (stopping) return;
      stopping = true;
      server.close(() => close(0));
      const idle = (): void => {
        if ('closeIdleConnections' in server) server.closeIdleConnections();
      };
      idle();
      setInterval(idle, IDLE_MS).unref();
      setTimeout(() => close(0), STOP_MS).unref();
    });
}

let path = USUAL_PATH;
try {
  const environment = environmentOf(process.env);
  path = environment.database ?? USUAL_PATH;
  if (process.argv.includes('--check')) process.exit((await checkLibrary(path)) ? 0 : 1);
  await start(environment);
} catch (error) {
  stopped(error, path);
}

import { existsSync, readdirSync, rmSync, statSync } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import knex, { type Knex } from 'knex';
import { StartRefused } from './environment.ts';
import { identifyAnew, identityOf } from './identity.ts';
import { indexAnew, indexCharts } from './lists.ts';
import { lockLibrary } from './lock.ts';
import * as first from './migrations/001_library.ts';
import * as second from './migrations/002_known_shapes.ts';
import * as third from './migrations/003_answers.ts';
import * as fourth from './migrations/004_lists.ts';
import * as fifth from './migrations/005_practice.ts';
import { seedDemo } from './seeds/demo.ts';
import { iso, type World, WORLD } from './world.ts';

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '../../..');
const MEMORY = ':memory:';

/** Where the library lives unless it is told otherwise: beside the code. */
export const USUAL_PATH = resolve(ROOT, 'data/crow-ladder.sqlite');

const MIGRATIONS: Readonly<Record<string, Knex.Migration>> = {
  '001_library': first,
  '002_known_shapes': second,
  '003_answers': third,
  '004_lists': fourth,
  '005_practice': fifth,
};

const migrationSource: Knex.MigrationSource<string> = {
  getMigrations: () => Promise.resolve(Object.keys(MIGRATIONS)),
  getMigrationName: (name) => name,
  getMigration: (name) => Promise.resolve(MIGRATIONS[name]!),
};

interface RawConnection {
  pragma(sql: string): unknown;
}

/** How long a write waits for another server on the same library, in ms. */
const BUSY_MS = 5000;

const quiet = (): void => undefined;
/** What goes wrong is told where it is known what it means; the driver's own words hold what players wrote. */
export const SILENT = { warn: quiet, error: quiet, deprecate: quiet, debug: quiet };

/** A library's file as it is opened; it may not be up to date. To be read alone, it has to be there. */
export const connect = (path: string, readonly = false): Knex =>
  knex({
    log: SILENT,
    client: 'better-sqlite3',
    connection: { filename: path, options: { readonly } },
    useNullAsDefault: true,
    pool: {
      min: 1,
      max: 1,
      afterCreate: (raw: RawConnection, done: (error: Error | null, raw: RawConnection) => void) => {
        try {
          raw.pragma(`busy_timeout = ${BUSY_MS}`);
          raw.pragma('journal_mode = WAL');
          raw.pragma('foreign_keys = ON');
          // A chart that was reported as saved survives a power cut, not only a killed process.
          raw.pragma('synchronous = FULL');
          done(null, raw);
        } catch (error) {
          done(error as Error, raw);
        }
      },
    },
  });

/** How many copies from before an update are kept. */
const COPIES = 3;
/** A library that is to be brought up to date is copied aside first; the last copies are kept. */
async function copyAside(db: Knex, path: string, { now }: Pick<World, 'now'>): Promise<void> {
  const copy = `${path}.before-${iso(now()).replace(/[:.]/g, '-')}`;
  await db.raw('VACUUM INTO ?', [copy]);
  const all = readdirSync(dirname(path)).filter((name) => name.startsWith(`${basename(path)}.before-`));
  for (const old of all.sort().slice(0, -COPIES)) rmSync(join(dirname(path), old));
}

/** A new, empty library of a moment: nothing in it has to outlive the process. */
export async function passingLibrary(path: string): Promise<Knex> {
  const db = connect(path);
  for (const pragma of ['journal_mode = MEMORY', 'synchronous = OFF']) await db.raw(`PRAGMA ${pragma}`);
  await db.migrate.latest({ migrationSource });
  return db;
}

/** A library that is open. */
export interface Opened {
  readonly db: Knex;
  /** Whether the demo was loaded into it just now. */
  readonly demo: boolean;
  /** Whether its file is still the one that was opened: it may be moved or deleted under a running server. */
  readonly isThere: () => boolean;
}

/** How long a start waits for another one on the same library, in ms, and how often it looks. */
const OPENING = { most: 60_000, every: 50 };
/** Takes turns with other servers that open the same library, and gives what ends the turn. */
async function turnAt(path: string): Promise<() => void> {
  for (const end = Date.now() + OPENING.most; ;)
    try {
      return lockLibrary(`${path}.opening`, '');
    } catch (error) {
      if (!(error instanceof StartRefused) || Date.now() > end) throw error;
      await new Promise((later) => setTimeout(later, OPENING.every));
    }
}

/** Opens the library, brings its tables up to date, and fills an all-new one with the demo. */
export async function openDatabase(path = USUAL_PATH, world: Pick<World, 'now'> = WORLD): Promise<Opened> {
  if (path === MEMORY) return opened(path, world);
  const done = await turnAt(path);
  try {
    return await opened(path, world);
  } finally {
    done();
  }
}

async function opened(path: string, world: Pick<World, 'now'>): Promise<Opened> {
  const onDisk = path !== MEMORY;
  const isNew = !onDisk || !existsSync(path) || statSync(path).size === 0;
  const db = connect(path);
  try {
    if (!isNew) {
      const [, pending] = (await db.migrate.list({ migrationSource })) as [unknown[], unknown[]];
      if (pending.length) await copyAside(db, path, world);
    }
    await db.migrate.latest({ migrationSource });
    const demo = await seedDemo(db);
    if ((await identityOf(db)) === null) await identifyAnew(db, WORLD);
    await indexAnew(db);
    await indexCharts(db);
    const identity = (): string => {
      const { dev, ino } = statSync(path);
      return `${dev}/${ino}`;
    };
    const is = onDisk ? identity() : '';
    const isThere = (): boolean => {
      try {
        return !onDisk || identity() === is;
      } catch {
        return false;
      }
    };
    return { db, demo, isThere };
  } catch (error) {
    await db.destroy();
    throw error;
  }
}

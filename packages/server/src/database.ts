import { existsSync, mkdirSync, readdirSync, renameSync, rmSync, statSync } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import knex, { type Knex } from 'knex';
import { StartRefused } from './environment.ts';
import { BESIDE } from './files.ts';
import { identifyAnew, identityOf } from './identity.ts';
import { indexAnew, indexCharts } from './lists.ts';
import { holdLock } from './lock.ts';
import * as first from './migrations/001_library.ts';
import * as second from './migrations/002_known_shapes.ts';
import * as third from './migrations/003_answers.ts';
import * as fourth from './migrations/004_lists.ts';
import * as fifth from './migrations/005_practice.ts';
import * as sixth from './migrations/006_sound.ts';
import * as seventh from './migrations/007_phrases.ts';
import * as eighth from './migrations/008_recall.ts';
import * as ninth from './migrations/009_log.ts';
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
  '006_sound': sixth,
  '007_phrases': seventh,
  '008_recall': eighth,
  '009_log': ninth,
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
  // The one that was just made stays, whatever clock the others were named by.
  const others = readdirSync(dirname(path)).filter(
    (name) => name.startsWith(`${basename(path)}.before-`) && name !== basename(copy),
  );
  for (const old of others.sort().slice(0, 1 - COPIES)) rmSync(join(dirname(path), old));
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
  /** Whether it is all new, with the demo in it. */
  readonly isNew: boolean;
}

/** How long a start waits for another one on the same library, in ms, and how often it looks. */
const OPENING = { most: 60_000, every: 50 };
/** Takes turns with other servers that open the same library, and gives what ends the turn. */
async function turnAt(path: string): Promise<() => void> {
  for (const end = Date.now() + OPENING.most; ;) {
    const done = holdLock(`${path}-opening`);
    if (done) return done;
    if (Date.now() > end)
      throw new StartRefused(
        `Another Crow Ladder has been opening ${path} for too long: stop it, and start again.`,
      );
    await new Promise((later) => setTimeout(later, OPENING.every));
  }
}

/** Looks at where a library is to be before anything is done there; the usual place is made. Throws `StartRefused`. */
export function lookAtPlace(path: string): void {
  const folder = dirname(path);
  if (path === USUAL_PATH) mkdirSync(folder, { recursive: true });
  if (existsSync(folder)) return;
  throw new StartRefused(
    `The folder ${folder} is missing: make it, or connect the disk that it is on, or set CROW_LADDER_DB to a file elsewhere.`,
  );
}

/** Whether a library has to be made; one that seems to have been lost is not taken for a new one. Throws `StartRefused`. */
function isToBeMade(path: string, anew: boolean): boolean {
  const bytes = statSync(path, { throwIfNoEntry: false })?.size ?? null;
  if (bytes !== null && bytes > 0) return false;
  const left = BESIDE.map((end) => path + end).find(
    (file) => statSync(file, { throwIfNoEntry: false })?.size,
  );
  if (left !== undefined)
    throw new StartRefused(
      `${left} is there without the library that it belongs to: put that library back to ${path}, or move ${left} elsewhere.`,
    );
  if (bytes === 0 && !anew)
    throw new StartRefused(
      `${path} is empty, which no library is: put a copy of the library in its place, or begin a new one there with npm start -- --new.`,
    );
  return true;
}

/** Opens the library and brings its tables up to date, or makes one with the demo in it; `anew`, even where an empty file stands. */
export async function openDatabase(
  path = USUAL_PATH,
  world: Pick<World, 'now'> = WORLD,
  anew = false,
): Promise<Opened> {
  if (path === MEMORY) return { db: await begun(path), isNew: true };
  lookAtPlace(path);
  const done = await turnAt(path);
  try {
    const isNew = isToBeMade(path, anew);
    if (isNew) await make(path);
    return { db: await opened(path, world), isNew };
  } finally {
    done();
  }
}

/** A new library with the demo in it. */
async function begun(path: string): Promise<Knex> {
  const db = connect(path);
  try {
    await db.migrate.latest({ migrationSource });
    await seedDemo(db, WORLD.now());
    await identifyAnew(db, WORLD);
    await indexCharts(db);
    return db;
  } catch (error) {
    await db.destroy();
    throw error;
  }
}

/** Makes a library under a name of its own, and gives it its place once it is whole: a start that ends in between leaves none. */
async function make(path: string): Promise<void> {
  const making = `${path}.making`;
  const away = (): void => {
    for (const end of ['', ...BESIDE]) rmSync(making + end, { force: true });
  };
  away();
  try {
    await (await begun(making)).destroy();
    renameSync(making, path);
  } finally {
    away();
  }
}

async function opened(path: string, world: Pick<World, 'now'>): Promise<Knex> {
  const db = connect(path);
  try {
    const [, pending] = (await db.migrate.list({ migrationSource })) as [unknown[], unknown[]];
    if (pending.length) await copyAside(db, path, world);
    await db.migrate.latest({ migrationSource });
    if ((await identityOf(db)) === null) await identifyAnew(db, WORLD);
    await indexAnew(db);
    await indexCharts(db);
    return db;
  } catch (error) {
    await db.destroy();
    throw error;
  }
}

import { mkdirSync } from 'node:fs';
import { dirname, resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import knex, { type Knex } from 'knex';
import * as first from './migrations/001_library.ts';
import * as second from './migrations/002_known_shapes.ts';
import { seedDemo } from './seeds/demo.ts';

const ROOT = resolve(dirname(fileURLToPath(import.meta.url)), '../../..');

/** Where the library lives: the environment variable CROW_LADDER_DB, or `data/crow-ladder.sqlite` beside the code. */
export const databasePath = (): string =>
  process.env['CROW_LADDER_DB'] ?? resolve(ROOT, 'data/crow-ladder.sqlite');

const MIGRATIONS: Readonly<Record<string, Knex.Migration>> = {
  '001_library': first,
  '002_known_shapes': second,
};

const migrationSource: Knex.MigrationSource<string> = {
  getMigrations: () => Promise.resolve(Object.keys(MIGRATIONS)),
  getMigrationName: (name) => name,
  getMigration: (name) => Promise.resolve(MIGRATIONS[name]!),
};

interface RawConnection {
  pragma(sql: string): unknown;
}

/** Opens the library, brings its tables up to date, and fills an all-new one with the demo. */
export async function openDatabase(path = databasePath()): Promise<{ db: Knex; demo: boolean }> {
  if (path !== ':memory:') mkdirSync(dirname(path), { recursive: true });
  const db = knex({
    client: 'better-sqlite3',
    connection: { filename: path },
    useNullAsDefault: true,
    pool: {
      min: 1,
      max: 1,
      afterCreate: (raw: RawConnection, done: (error: Error | null, raw: RawConnection) => void) => {
        raw.pragma('journal_mode = WAL');
        raw.pragma('foreign_keys = ON');
        // A chart that was reported as saved survives a power cut, not only a killed process.
        raw.pragma('synchronous = FULL');
        done(null, raw);
      },
    },
  });
  await db.migrate.latest({ migrationSource });
  const demo = await seedDemo(db);
  return { db, demo };
}

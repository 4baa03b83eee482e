import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { openDatabase } from './database.ts';
import { environmentOf, StartRefused, startSentence } from './environment.ts';

const folder = mkdtempSync(join(tmpdir(), 'crow-ladder-'));
const at = (name: string): string => join(folder, name);
afterAll(() => rmSync(folder, { recursive: true, force: true }));

test('what the environment says is read, or refused with what to set instead', () => {
  expect(environmentOf({})).toEqual({
    host: '127.0.0.1',
    port: 4780,
    hosts: '',
    database: null,
    share: false,
    passcode: null,
  });
  const asked = {
    CROW_LADDER_HOST: '::1',
    CROW_LADDER_PORT: '65535',
    CROW_LADDER_HOSTS: 'galley',
    CROW_LADDER_DB: 'library.sqlite',
    CROW_LADDER_SHARE: '1',
    CROW_LADDER_PASSCODE: ' eight ee ',
  };
  expect(environmentOf(asked)).toEqual({
    host: '::1',
    port: 65_535,
    hosts: 'galley',
    database: resolve('library.sqlite'),
    share: true,
    passcode: 'eight ee',
  });
  // Only a 1 shares a library.
  for (const share of ['0', '', 'true', '11'])
    expect([share, environmentOf({ CROW_LADDER_SHARE: share }).share]).toEqual([share, false]);
  expect(environmentOf({ CROW_LADDER_PORT: '0' }).port).toBe(0);
  for (const [env, said] of [
    [
      { CROW_LADDER_PORT: 'seven' },
      'CROW_LADDER_PORT is “seven”: set it to a whole number from 1 to 65535, or to 0 for one that is free.',
    ],
    [{ CROW_LADDER_PORT: '65536' }, 'CROW_LADDER_PORT is “65536”'],
    [{ CROW_LADDER_PORT: '-1' }, 'CROW_LADDER_PORT is “-1”'],
    [{ CROW_LADDER_PORT: '80.5' }, 'CROW_LADDER_PORT is “80.5”'],
    [{ CROW_LADDER_HOST: 'a b' }, 'CROW_LADDER_HOST is “a b”'],
    [{ CROW_LADDER_HOST: '' }, 'CROW_LADDER_HOST is “”'],
    [{ CROW_LADDER_DB: ' ' }, 'CROW_LADDER_DB is empty'],
    [
      { CROW_LADDER_PASSCODE: '  seven7  ' },
      'CROW_LADDER_PASSCODE has 6 characters: set it to one of 8 to 200',
    ],
    [{ CROW_LADDER_PASSCODE: 'x'.repeat(201) }, 'CROW_LADDER_PASSCODE has 201 characters'],
  ] as const)
    expect(() => environmentOf(env)).toThrow(said);
  expect(environmentOf({ CROW_LADDER_PASSCODE: 'x'.repeat(200) }).passcode).toHaveLength(200);
});

test('what the system means is said, also of what cannot be made here', async () => {
  const { db } = await openDatabase(at('newer.sqlite'));
  await db('knex_migrations').insert({ name: '999_of_next_year', batch: 9, migration_time: new Date() });
  await db.destroy();
  writeFileSync(at('note.txt'), 'Dear captain, '.repeat(200));
  for (const [path, said] of [
    ['newer.sqlite', /newer\.sqlite was written by a newer Crow Ladder: update Crow Ladder first\.$/],
    ['note.txt', /note\.txt is not a library of Crow Ladder: it is no database\./],
    [
      'note.txt/library.sqlite',
      /cannot be opened: nothing can be written into its folder, or something else has its name\.$/,
    ],
  ] as const)
    expect(startSentence(await openDatabase(at(path)).catch((e: unknown) => e), at(path))).toMatch(said);
  const said = (code: string): string | null =>
    startSentence(Object.assign(new Error(), { code }), '/boat/library');
  expect(said('SQLITE_CORRUPT_VTAB')).toMatch(/^\/boat\/library is damaged/);
  for (const code of ['SQLITE_READONLY_DIRECTORY', 'EROFS'])
    expect(said(code)).toMatch(/cannot be written to/);
  for (const code of ['SQLITE_FULL', 'ENOSPC']) expect(said(code)).toMatch(/disk .* is full/);
  expect(said('SQLITE_BUSY')).toMatch(/in use by another program/);
  for (const code of ['EACCES', 'EPERM']) expect(said(code)).toMatch(/may not be opened/);
  for (const code of ['SQLITE_CANTOPEN', 'ENOENT', 'ENOTDIR', 'EISDIR', 'EEXIST'])
    expect(said(code)).toMatch(/cannot be opened/);
  expect(said('E_NOBODY_FORESAW')).toBeNull();
  expect(startSentence(new StartRefused('Set it.'), '/boat')).toBe('Set it.');
});

import { resolve } from 'node:path';
import { PASSCODE_LIMIT } from '@crow-ladder/contract';

/** How a server is started, as its environment says. */
export interface Environment {
  readonly host: string;
  /** 0 is one that is free. */
  readonly port: number;
  /** Names that it answers to beside its own. */
  readonly hosts: string;
  /** Where the library lives; null is where it usually is. */
  readonly database: string | null;
  /** Whether another server may have the library open as well. */
  readonly share: boolean;
  /** What is asked for before anything else; null where none was set. */
  readonly passcode: string | null;
}

/** The shortest passcode, in characters. */
const PASSCODE = 8;

/** Why a server cannot be started, in a sentence for who started it. */
export class StartRefused extends Error {}

/** Reads what a server is started with; throws `StartRefused` with what to change. */
export function environmentOf(env: Readonly<Record<string, string | undefined>>): Environment {
  const host = env['CROW_LADDER_HOST'] ?? '127.0.0.1';
  const typed = env['CROW_LADDER_PORT'] ?? '4780';
  const database = env['CROW_LADDER_DB'];
  const port = Number(typed);
  if (!/^\d+$/.test(typed) || port > 65_535)
    throw new StartRefused(
      `CROW_LADDER_PORT is “${typed}”: set it to a whole number from 1 to 65535, or to 0 for one that is free.`,
    );
  if (!/^[\w.:[\]-]+$/.test(host))
    throw new StartRefused(
      `CROW_LADDER_HOST is “${host}”: set it to an address such as 127.0.0.1 or 0.0.0.0.`,
    );
  if (database !== undefined && database.trim() === '')
    throw new StartRefused('CROW_LADDER_DB is empty: leave it out, or set it to the file of the library.');
  const passcode = env['CROW_LADDER_PASSCODE'] ?? null;
  const long = passcode?.trim().length ?? PASSCODE;
  if (long < PASSCODE || long > PASSCODE_LIMIT)
    throw new StartRefused(
      `CROW_LADDER_PASSCODE has ${long} characters: set it to one of ${PASSCODE} to ${PASSCODE_LIMIT}, or leave it out.`,
    );
  return {
    host,
    port,
    hosts: env['CROW_LADDER_HOSTS'] ?? '',
    database: database === undefined ? null : resolve(database),
    share: env['CROW_LADDER_SHARE'] === '1',
    passcode: passcode?.trim() ?? null,
  };
}

/** What an error of the system or the database means for who started the server; null for one that nobody foresaw. */
const SENTENCES: readonly (readonly [code: RegExp, said: (path: string) => string])[] = [
  [
    /^SQLITE_NOTADB/,
    (p) => `${p} is not a library of Crow Ladder: it is no database. Set CROW_LADDER_DB to another file.`,
  ],
  [
    /^SQLITE_CORRUPT/,
    (p) => `${p} is damaged and cannot be read. Put a copy of it in its place; docs/operations.md says how.`,
  ],
  [
    /^(SQLITE_READONLY|EROFS)/,
    (p) => `${p} cannot be written to: change its permissions, or set CROW_LADDER_DB to another file.`,
  ],
  [/^(SQLITE_FULL|ENOSPC)/, (p) => `The disk of ${p} is full: make room first.`],
  [/^SQLITE_BUSY/, (p) => `${p} is in use by another program: close it first.`],
  [
    /^(EACCES|EPERM)/,
    (p) => `${p} may not be opened: change its permissions, or set CROW_LADDER_DB to another file.`,
  ],
  [
    /^(SQLITE_CANTOPEN|ENOENT|ENOTDIR|EISDIR|EEXIST)/,
    (p) => `${p} cannot be opened: nothing can be written into its folder, or something else has its name.`,
  ],
];

export function startSentence(error: unknown, path: string): string | null {
  if (error instanceof StartRefused) return error.message;
  const { code = '', message = '' } = error as { code?: string; message?: string };
  if (/migration directory is corrupt/i.test(message))
    return `${path} was written by a newer Crow Ladder: update Crow Ladder first.`;
  return SENTENCES.find(([of]) => of.test(code))?.[1](path) ?? null;
}

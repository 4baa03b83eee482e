import { existsSync } from 'node:fs';
import { settingsChangeSchema, instrumentSchema, validate } from '@crow-ladder/contract/schemas';
import knex from 'knex';
import { SILENT } from './database.ts';
import { startSentence } from './environment.ts';
import { libraryOn } from './library.ts';

/** Looks through a library without changing it, and prints what is wrong with it. True where nothing is. */
export async function checkLibrary(
  path: string,
  say: (line: string) => void = console.log,
): Promise<boolean> {
  if (!existsSync(path)) {
    say(`There is no library at ${path}.`);
    return false;
  }
  const db = knex({
    log: SILENT,
    client: 'better-sqlite3',
    connection: { filename: path, options: { readonly: true } },
    useNullAsDefault: true,
  });
  let wrong = 0;
  const found = (line: string): void => {
    wrong++;
    say(line);
  };
  try {
    const integrity = (await db.raw('PRAGMA integrity_check')) as { integrity_check: string }[];
    for (const { integrity_check: line } of integrity) if (line !== 'ok') found(`SQLite: ${line}`);
    const library = libraryOn(db);
    const { charts, unreadable } = await library.charts();
    for (const { id, name, reason } of unreadable) found(`Chart ${id}, “${name}”: ${reason}`);
    const instruments = await library.instruments();
    for (const { id, instrument } of instruments) {
      const read = validate(instrumentSchema, instrument);
      if (!read.ok) found(`Instrument ${id}: ${read.error.message}`);
    }
    const settings = validate(settingsChangeSchema, await library.settings());
    if (!settings.ok) found(`Settings: ${settings.error.message}`);
    say(
      `${path}: ${charts.length} charts and ${instruments.length} instruments read; ${wrong || 'nothing'} wrong.`,
    );
  } catch (error) {
    found(startSentence(error, path) ?? (error as Error).message);
  } finally {
    await db.destroy();
  }
  return wrong === 0;
}

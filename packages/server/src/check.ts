import { existsSync } from 'node:fs';
import { instrumentSchema, settingsSchema, validate } from '@crow-ladder/contract/schemas';
import knex from 'knex';
import { SILENT } from './database.ts';
import { startSentence } from './environment.ts';
import { readSettings } from './library.ts';
import { eachRow, liveInstruments, toChart, toInstrument } from './rows.ts';

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
    let charts = 0;
    for await (const rows of eachRow(db))
      for (const row of rows) {
        const chart = toChart(row);
        if (chart.ok) charts++;
        else found(`Chart ${row.id}, “${row.name}”: ${chart.error.message}`);
      }
    const instruments = (await liveInstruments(db)).map(toInstrument);
    for (const { id, instrument } of instruments) {
      const read = validate(instrumentSchema, instrument);
      if (!read.ok) found(`Instrument ${id}: ${read.error.message}`);
    }
    const settings = validate(settingsSchema, await readSettings(db));
    if (!settings.ok) found(`Settings: ${settings.error.message}`);
    say(`${path}: ${charts} charts and ${instruments.length} instruments read; ${wrong || 'nothing'} wrong.`);
  } catch (error) {
    found(startSentence(error, path) ?? (error as Error).message);
  } finally {
    await db.destroy();
  }
  return wrong === 0;
}

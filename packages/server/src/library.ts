import {
  type Backup,
  BACKUP_VERSION,
  type Chart,
  type ChartChange,
  type ChartDraft,
  DEFAULT_SETTINGS,
  type KeptInstrument,
  type Settings,
} from '@crow-ladder/contract';
import { type Instrument } from '@crow-ladder/core';
import { type Knex } from 'knex';
import { nanoid } from 'nanoid';

interface ChartRow {
  id: string;
  name: string;
  tags: string;
  notes: string;
  state: string;
  revision: number;
  created_at: string;
  updated_at: string;
}
interface InstrumentRow {
  id: string;
  instrument: string;
  updated_at: string;
}

const toChart = (row: ChartRow): Chart => ({
  id: row.id,
  name: row.name,
  tags: JSON.parse(row.tags) as string[],
  notes: row.notes,
  state: JSON.parse(row.state) as Chart['state'],
  revision: row.revision,
  createdAt: row.created_at,
  updatedAt: row.updated_at,
});
const columns = (draft: ChartDraft) => ({
  name: draft.name.trim(),
  tags: JSON.stringify(draft.tags),
  notes: draft.notes,
  state: JSON.stringify(draft.state),
});
const toInstrument = (row: InstrumentRow): KeptInstrument => ({
  id: row.id,
  instrument: JSON.parse(row.instrument) as Instrument,
  updatedAt: row.updated_at,
});
const now = (): string => new Date().toISOString();

/** Everything that the API does with the database. A promise that resolves means that the change is on disk. */
export function libraryOn(db: Knex) {
  const live = (table: string) => db(table).whereNull('deleted_at');
  const readChart = async (id: string): Promise<Chart | null> => {
    const row = (await live('charts').where({ id }).first()) as ChartRow | undefined;
    return row ? toChart(row) : null;
  };
  const readInstrument = async (id: string): Promise<KeptInstrument | null> => {
    const row = (await live('instruments').where({ id }).first()) as InstrumentRow | undefined;
    return row ? toInstrument(row) : null;
  };
  const settings = async (on: Knex = db): Promise<Settings> => {
    const row = (await on('facts').where({ name: 'settings' }).first()) as { value: string } | undefined;
    return row ? { ...DEFAULT_SETTINGS, ...(JSON.parse(row.value) as Settings) } : DEFAULT_SETTINGS;
  };
  const putSettings = (value: Settings, on: Knex) =>
    on('facts')
      .insert({ name: 'settings', value: JSON.stringify(value) })
      .onConflict('name')
      .merge();
  const charts = async (): Promise<Chart[]> =>
    (
      (await live('charts').orderBy([
        { column: 'updated_at', order: 'desc' },
        { column: 'id' },
      ])) as ChartRow[]
    ).map(toChart);
  const instruments = async (): Promise<KeptInstrument[]> =>
    ((await live('instruments').orderBy('updated_at', 'desc')) as InstrumentRow[]).map(toInstrument);
  /** Marks a row as deleted, or takes the mark away again. False where there was nothing to do. */
  const mark = async (table: string, id: string, deleted: boolean): Promise<boolean> => {
    const rows = db(table).where({ id });
    const found = deleted ? rows.whereNull('deleted_at') : rows.whereNotNull('deleted_at');
    return (await found.update({ deleted_at: deleted ? now() : null })) > 0;
  };

  return {
    charts,
    instruments,
    settings: () => settings(),
    /** Changes some of the settings and leaves the others as they are by then. */
    changeSettings: (part: Partial<Settings>): Promise<Settings> =>
      db.transaction(async (trx) => {
        const value = { ...(await settings(trx)), ...part };
        await putSettings(value, trx);
        return value;
      }),
    mark,
    readChart,
    readInstrument,
    createChart: async (draft: ChartDraft): Promise<Chart> => {
      const id = nanoid(12);
      const at = now();
      await db('charts').insert({ id, ...columns(draft), revision: 1, created_at: at, updated_at: at });
      return (await readChart(id))!;
    },
    /** Changes a chart if it still has the revision that the change was made from; null where it has moved on or is gone. */
    changeChart: async (id: string, { revision, ...draft }: ChartChange): Promise<Chart | null> => {
      const changed = await live('charts')
        .where({ id, revision })
        .update({ ...columns(draft), revision: revision + 1, updated_at: now() });
      return changed ? readChart(id) : null;
    },
    putInstrument: async (instrument: Instrument, id?: string): Promise<KeptInstrument | null> => {
      const row = { instrument: JSON.stringify(instrument), updated_at: now() };
      const key = id ?? nanoid(12);
      if (id === undefined) await db('instruments').insert({ id: key, ...row });
      else if (!(await live('instruments').where({ id }).update(row))) return null;
      return readInstrument(key);
    },
    backup: async (): Promise<Backup> => ({
      format: 'crow-ladder-backup',
      version: BACKUP_VERSION,
      madeAt: now(),
      charts: await charts(),
      instruments: await instruments(),
      settings: await settings(),
    }),
    /**
     * Replaces the whole library by a backup, or changes nothing. A chart that comes back has a revision of its own, so
     * that a tab that still shows what stood there before cannot save over it unseen.
     */
    restore: (backup: Backup): Promise<void> =>
      db.transaction(async (trx) => {
        const replaced = (await trx('charts').select('id', 'revision')) as Pick<
          ChartRow,
          'id' | 'revision'
        >[];
        const revisions = new Map(replaced.map((row) => [row.id, row.revision]));
        await trx('charts').delete();
        await trx('instruments').delete();
        for (const c of backup.charts)
          await trx('charts').insert({
            id: c.id,
            ...columns(c),
            revision: Math.max(c.revision, (revisions.get(c.id) ?? 0) + 1),
            created_at: c.createdAt,
            updated_at: c.updatedAt,
          });
        for (const i of backup.instruments)
          await trx('instruments').insert({
            id: i.id,
            instrument: JSON.stringify(i.instrument),
            updated_at: i.updatedAt,
          });
        await putSettings(backup.settings, trx);
      }),
  };
}

export type Library = ReturnType<typeof libraryOn>;

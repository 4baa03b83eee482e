import {
  type Backup,
  BACKUP_VERSION,
  BIN_DAYS,
  type Binned,
  type Chart,
  type ChartChange,
  type ChartDraft,
  type ChartList,
  type Checked,
  type Demo,
  type Kept,
  type KeptInstrument,
  type RawRow,
  type Settings,
  settingsFrom,
  withoutOdd,
} from '@crow-ladder/contract';
import { readDraft } from '@crow-ladder/contract/schemas';
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

const json = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
};

/** A row read as a chart, of whatever version it is. */
function toChart(row: ChartRow): Checked<Chart> {
  const { id, name, notes, revision, created_at: createdAt, updated_at: updatedAt } = row;
  // A row of before there was a rule for texts is read without what they may not have.
  const draft = readDraft(withoutOdd({ name, notes, tags: json(row.tags), state: json(row.state) }));
  return draft.ok ? { ok: true, value: { ...draft.value, id, revision, createdAt, updatedAt } } : draft;
}
const columns = (draft: ChartDraft) => ({
  name: draft.name,
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
const DAY_MS = 86_400_000;
const ago = (days: number): string => new Date(Date.now() - days * DAY_MS).toISOString();

/** How often a transaction that another server came before is begun again. */
const AGAIN = 40;
/** A transaction; where another server on the same library wrote in between, it is begun again a moment later. */
async function transaction<T>(db: Knex, work: (trx: Knex.Transaction) => Promise<T>): Promise<T> {
  for (let tries = 0; ; tries++)
    try {
      return await db.transaction(work);
    } catch (error) {
      if (tries >= AGAIN || !/^SQLITE_BUSY/.test((error as { code?: string }).code ?? '')) throw error;
      await new Promise((later) => setTimeout(later, 5 + Math.random() * 10 * (tries + 1)));
    }
}

/** Everything that the API does with the database. A promise that resolves means that the change is on disk. */
export function libraryOn(db: Knex) {
  const live = (table: string, on: Knex = db) => on(table).whereNull('deleted_at');
  const rawChart = async (id: string, on: Knex = db): Promise<ChartRow | null> =>
    ((await live('charts', on).where({ id }).first()) as ChartRow | undefined) ?? null;
  const readChart = async (id: string, on: Knex = db): Promise<Checked<Chart> | null> => {
    const row = await rawChart(id, on);
    return row && toChart(row);
  };
  const readInstrument = async (id: string, on: Knex): Promise<KeptInstrument | null> => {
    const row = (await live('instruments', on).where({ id }).first()) as InstrumentRow | undefined;
    return row ? toInstrument(row) : null;
  };
  const settings = async (on: Knex = db): Promise<Settings> => {
    const row = (await on('facts').where({ name: 'settings' }).first()) as { value: string } | undefined;
    return settingsFrom(row ? (JSON.parse(row.value) as Partial<Settings>) : {});
  };
  const putSettings = (value: Settings, on: Knex) =>
    on('facts')
      .insert({ name: 'settings', value: JSON.stringify(value) })
      .onConflict('name')
      .merge();
  const chartRows = async (): Promise<readonly { row: ChartRow; chart: Checked<Chart> }[]> => {
    const rows = (await live('charts').orderBy([
      { column: 'updated_at', order: 'desc' },
      { column: 'id' },
    ])) as ChartRow[];
    return rows.map((row) => ({ row, chart: toChart(row) }));
  };
  const instruments = async (): Promise<KeptInstrument[]> =>
    ((await live('instruments').orderBy('updated_at', 'desc')) as InstrumentRow[]).map(toInstrument);
  const known = async (): Promise<string[]> =>
    ((await db('known_shapes').orderBy(['since', 'shape'])) as { shape: string }[]).map((row) => row.shape);
  const addShapes = async (shapes: readonly string[], on: Knex): Promise<void> => {
    const since = now();
    for (const shape of shapes)
      await on('known_shapes').insert({ shape, since }).onConflict('shape').ignore();
  };
  const TABLES: Readonly<Record<Kept, string>> = { chart: 'charts', instrument: 'instruments' };
  /** Marks a row as deleted, or takes the mark away again. False where there was nothing to do. */
  const mark = async (kind: Kept, id: string, deleted: boolean): Promise<boolean> => {
    const rows = db(TABLES[kind]).where({ id });
    const found = deleted ? rows.whereNull('deleted_at') : rows.whereNotNull('deleted_at');
    return (await found.update({ deleted_at: deleted ? now() : null })) > 0;
  };

  /** A change that came with a key is made once: when it comes again within a day, it is answered as it was then. */
  const once = <T>(key: string | undefined, change: (on: Knex) => Promise<T>): Promise<T> =>
    key === undefined
      ? change(db)
      : transaction(db, async (trx) => {
          const kept = (await trx('answers').where({ key }).first()) as { answer: string } | undefined;
          if (kept) return JSON.parse(kept.answer) as T;
          const answer = await change(trx);
          await trx('answers').where('at', '<', ago(1)).delete();
          if (answer !== null)
            await trx('answers').insert({ key, answer: JSON.stringify(answer), at: now() });
          return answer;
        });

  const binned = (kind: Kept) => db(TABLES[kind]).whereNotNull('deleted_at');
  /** What was deleted, the last first. What has been there longer than the bin holds it goes for good. */
  const bin = async (): Promise<readonly Binned[]> => {
    const before = ago(BIN_DAYS);
    const all: Binned[] = [];
    for (const kind of ['chart', 'instrument'] as const) {
      await binned(kind).where('deleted_at', '<', before).delete();
      for (const row of (await binned(kind)) as (ChartRow & InstrumentRow & { deleted_at: string })[]) {
        const name = kind === 'chart' ? row.name : toInstrument(row).instrument.name;
        all.push({ kind, id: row.id, name, deletedAt: row.deleted_at });
      }
    }
    return all.sort((a, b) => b.deletedAt.localeCompare(a.deletedAt));
  };

  /** Charts and instruments of the demo that are there as they were loaded. */
  const demoRows = async (on: Knex) => {
    const fact = (await on('facts').where({ name: 'demo' }).first()) as { value: string } | undefined;
    const ids = (json(fact?.value ?? '') ?? {}) as { charts?: string[]; instruments?: string[] };
    const rows = (table: string) => on(table).whereNull('deleted_at');
    const charts = rows('charts')
      .whereIn('id', ids.charts ?? [])
      .where({ revision: 1 });
    // An instrument that a chart of the player's own uses stays.
    const used = rows('charts').whereNotIn('id', ids.charts ?? []);
    const states = (await used.select('state')) as { state: string }[];
    interface Using {
      readonly instrumentId?: string;
      readonly others?: readonly { readonly instrumentId?: string }[];
    }
    const inUse = states.flatMap((row) => {
      const state = json(row.state) as Using | null;
      return [state?.instrumentId, ...(state?.others ?? []).map((o) => o.instrumentId)];
    });
    const instruments = rows('instruments').whereIn(
      'id',
      (ids.instruments ?? []).filter((id) => !inUse.includes(id)),
    );
    return { charts, instruments };
  };

  return {
    demo: async (): Promise<Demo> => {
      const { charts, instruments } = await demoRows(db);
      return { charts: (await charts).length, instruments: (await instruments).length };
    },
    /** Puts what is left of the demo into the bin. */
    clearDemo: (): Promise<Demo> =>
      transaction(db, async (trx) => {
        const { charts, instruments } = await demoRows(trx);
        const deleted = { deleted_at: now() };
        return { charts: await charts.update(deleted), instruments: await instruments.update(deleted) };
      }),
    bin,
    /** Takes something out of the bin for good. False where it is not in it. */
    discard: async (kind: Kept, id: string): Promise<boolean> =>
      (await binned(kind).where({ id }).delete()) > 0,
    charts: async (): Promise<ChartList> => {
      const rows = await chartRows();
      return {
        charts: rows.flatMap(({ chart }) => (chart.ok ? [chart.value] : [])),
        unreadable: rows.flatMap(({ row, chart }) =>
          chart.ok ? [] : [{ id: row.id, name: row.name, reason: chart.error.message }],
        ),
      };
    },
    instruments,
    settings: () => settings(),
    /** Changes some of the settings and leaves the others as they are by then. */
    changeSettings: (part: Partial<Settings>): Promise<Settings> =>
      transaction(db, async (trx) => {
        const value = settingsFrom({ ...(await settings(trx)), ...part });
        await putSettings(value, trx);
        return value;
      }),
    known,
    addKnown: (shape: string): Promise<void> => addShapes([shape], db),
    removeKnown: async (shape: string): Promise<void> => {
      await db('known_shapes').where({ shape }).delete();
    },
    mark,
    readChart,
    rawChart,
    createChart: (draft: ChartDraft, key?: string): Promise<Chart> =>
      once(key, async (on) => {
        const id = nanoid(12);
        const at = now();
        await on('charts').insert({ id, ...columns(draft), revision: 1, created_at: at, updated_at: at });
        return { ...draft, id, revision: 1, createdAt: at, updatedAt: at };
      }),
    /** Changes a chart if it still has the revision that the change was made from; null where it has moved on or is gone. */
    changeChart: (id: string, { revision, ...draft }: ChartChange, key?: string): Promise<Chart | null> =>
      once(key, async (on) => {
        const changed = await live('charts', on)
          .where({ id, revision })
          .update({ ...columns(draft), revision: revision + 1, updated_at: now() });
        const chart = changed ? await readChart(id, on) : null;
        return chart?.ok ? chart.value : null;
      }),
    putInstrument: (instrument: Instrument, id?: string, key?: string): Promise<KeptInstrument | null> =>
      once(key, async (on) => {
        const row = { instrument: JSON.stringify(instrument), updated_at: now() };
        const it = id ?? nanoid(12);
        if (id === undefined) await on('instruments').insert({ id: it, ...row });
        else if (!(await live('instruments', on).where({ id }).update(row))) return null;
        return readInstrument(it, on);
      }),
    backup: async (): Promise<Backup> => {
      const rows = await chartRows();
      return {
        format: 'crow-ladder-backup',
        version: BACKUP_VERSION,
        madeAt: now(),
        charts: rows.flatMap(({ chart }) => (chart.ok ? [chart.value] : [])),
        unreadable: rows.flatMap(({ row, chart }) => (chart.ok ? [] : [{ ...row }])),
        instruments: await instruments(),
        settings: await settings(),
        known: await known(),
      };
    },
    /**
     * Replaces the whole library by a backup, or changes nothing. A chart that comes back has a revision of its own, so
     * that a tab that still shows what stood there before cannot save over it unseen.
     */
    restore: (backup: Backup): Promise<void> =>
      transaction(db, async (trx) => {
        const replaced = (await trx('charts').select('id', 'revision')) as Pick<
          ChartRow,
          'id' | 'revision'
        >[];
        const revisions = new Map(replaced.map((row) => [row.id, row.revision]));
        const after = (id: string, revision: number): number =>
          Math.max(revision, (revisions.get(id) ?? 0) + 1);
        for (const table of ['charts', 'instruments', 'known_shapes']) await trx(table).delete();
        for (const c of backup.charts)
          await trx('charts').insert({
            id: c.id,
            ...columns(c),
            revision: after(c.id, c.revision),
            created_at: c.createdAt,
            updated_at: c.updatedAt,
          });
        for (const row of backup.unreadable) await trx('charts').insert(rowOf(row, after));
        for (const i of backup.instruments)
          await trx('instruments').insert({
            id: i.id,
            instrument: JSON.stringify(i.instrument),
            updated_at: i.updatedAt,
          });
        await putSettings(backup.settings, trx);
        await addShapes(backup.known, trx);
      }),
  };
}

/** The columns of a row that could not be read, whatever a file says of them. */
function rowOf(raw: RawRow, after: (id: string, revision: number) => number): ChartRow {
  const text = (name: string): string => String(raw[name] ?? '');
  const id = text('id');
  return {
    id,
    name: text('name'),
    tags: text('tags'),
    notes: text('notes'),
    state: text('state'),
    revision: after(id, Number(raw['revision']) || 1),
    created_at: text('created_at'),
    updated_at: text('updated_at'),
  };
}

export type Library = ReturnType<typeof libraryOn>;

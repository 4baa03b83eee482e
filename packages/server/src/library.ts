import {
  BIN_DAYS,
  BIN_SHOWN,
  type Binned,
  type Chart,
  type ChartChange,
  type ChartDraft,
  type ChartLook,
  type ChartPage,
  type ChartQuery,
  type Checked,
  type Demo,
  type Kept,
  type KeptInstrument,
  type KeptRound,
  LIBRARY_LIMITS,
  type LibraryLimits,
  type Practised,
  type PractisedThing,
  type RoundQuery,
  type Settings,
  settingsFrom,
  type SettingsPatch,
  type Tagged,
  type UsedInstrument,
} from '@crow-ladder/contract';
import { type Instrument } from '@crow-ladder/core';
import { type Knex } from 'knex';
import { clearDemo, demoLeft } from './demo.ts';
import { chartPage, indexCharts, tagList } from './lists.ts';
import { addRound, practised, practisedThings } from './practice.ts';
import { identityOf } from './identity.ts';
import { transaction } from './transaction.ts';
import { iso, type World, WORLD } from './world.ts';
import { OTHER_LIBRARY, Refused } from './refused.ts';
import {
  CHART_COLUMNS,
  type ChartRow,
  columns,
  type InstrumentRow,
  json,
  live,
  toChart,
  toInstrument,
} from './rows.ts';

const DAY_MS = 86_400_000;
const TABLES: Readonly<Record<Kept, string>> = { chart: 'charts', instrument: 'instruments' };
type Row = ChartRow & InstrumentRow & { readonly deleted_at: string | null };

/** The text of a state, however it is looked at. */
const unlooked = (state: string): string => JSON.stringify({ ...(json(state) as object), front: null });

/** The settings as kept, with defaults for those that were never set. */
export async function readSettings(on: Knex): Promise<Settings> {
  const row = (await on('facts').where({ name: 'settings' }).first()) as { value: string } | undefined;
  return settingsFrom(row ? (JSON.parse(row.value) as Partial<Settings>) : {});
}
export const putSettings = (value: Settings, on: Knex) =>
  on('facts')
    .insert({ name: 'settings', value: JSON.stringify(value) })
    .onConflict('name')
    .merge();

export const knownShapes = async (on: Knex): Promise<string[]> =>
  ((await on('known_shapes').orderBy(['since', 'shape'])) as { shape: string }[]).map((row) => row.shape);

/** Refuses one more of what there are enough of already. */
async function roomFor(
  table: string,
  most: number,
  what: string,
  on: Knex,
  way = 'those in the bin among them: discard some of them for good',
): Promise<void> {
  const [{ n }] = (await on(table).count({ n: '*' })) as [{ n: number }];
  if (n >= most)
    throw new Refused(422, {
      code: 'library-full',
      message: `A library holds at most ${most} ${what}, ${way}.`,
    });
}

/**
 * Everything that the API does with the database. A promise that resolves means that the change is on disk. `settled` resolves once
 * the library is not being replaced.
 */
export function libraryOn(
  db: Knex,
  settled: () => Promise<unknown> = () => Promise.resolve(),
  world: World = WORLD,
  limits: LibraryLimits = LIBRARY_LIMITS,
) {
  const now = (): string => iso(world.now());
  const ago = (days: number): string => iso(world.now() - days * DAY_MS);
  const rawChart = async (id: string, on: Knex = db): Promise<ChartRow | null> =>
    ((await live('charts', on).where({ id }).first(CHART_COLUMNS)) as ChartRow | undefined) ?? null;
  const readChart = async (id: string, on: Knex = db): Promise<Checked<Chart> | null> => {
    const row = await rawChart(id, on);
    return row && toChart(row);
  };
  const readInstrument = async (id: string, on: Knex = db): Promise<KeptInstrument | null> => {
    const row = (await live('instruments', on).where({ id }).first()) as InstrumentRow | undefined;
    return row ? toInstrument(row) : null;
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
  /** What was deleted last, the last first. What has been there longer than the bin holds it goes for good. */
  const bin = async (): Promise<readonly Binned[]> => {
    const before = ago(BIN_DAYS);
    const all: Binned[] = [];
    for (const kind of ['chart', 'instrument'] as const) {
      await binned(kind).where('deleted_at', '<', before).delete();
      for (const row of (await binned(kind).orderBy('deleted_at', 'desc').limit(BIN_SHOWN)) as Row[]) {
        const name = kind === 'chart' ? row.name : toInstrument(row).instrument.name;
        all.push({ kind, id: row.id, name, deletedAt: row.deleted_at! });
      }
    }
    return all.sort((a, b) => b.deletedAt.localeCompare(a.deletedAt)).slice(0, BIN_SHOWN);
  };
  /** Lists are read from the index, which is brought up to what was changed since. */
  const indexed = async <T>(read: () => Promise<T>): Promise<T> => {
    await indexCharts(db, settled);
    return read();
  };

  return {
    identity: (): Promise<string | null> => identityOf(db),
    demo: (): Promise<Demo> => indexed(() => demoLeft(db)),
    clearDemo: (): Promise<Demo> => indexed(() => transaction(db, (trx) => clearDemo(trx, now()))),
    bin,
    /** Takes something out of the bin for good. False where it is not in it. */
    discard: async (kind: Kept, id: string): Promise<boolean> =>
      (await binned(kind).where({ id }).delete()) > 0,
    charts: (query: ChartQuery, from: number): Promise<ChartPage> =>
      indexed(async () => chartPage(db, query, from, (await readSettings(db)).ownScales)),
    tags: (): Promise<readonly Tagged[]> => indexed(() => tagList(db)),
    instruments: (): Promise<readonly UsedInstrument[]> =>
      indexed(async () => {
        const uses = db('chart_instruments')
          .join('charts', 'charts.id', 'chart_id')
          .whereNull('charts.deleted_at');
        const charts = uses.whereRaw('instrument_id = instruments.id').count('*').as('charts');
        const rows = (await live('instruments', db)
          .orderBy('updated_at', 'desc')
          .select('instruments.*', charts)) as (InstrumentRow & { charts: number })[];
        return rows.map((row) => ({ ...toInstrument(row), charts: row.charts }));
      }),
    settings: (): Promise<Settings> => readSettings(db),
    /**
     * Changes some of the settings and leaves the others as they are by then. Null where one of them is no longer what the change
     * was made from.
     */
    changeSettings: ({ from, to }: SettingsPatch): Promise<Settings | null> =>
      transaction(db, async (trx) => {
        const is = await readSettings(trx);
        const moved = (Object.keys(from) as (keyof Settings)[]).some(
          (name) => JSON.stringify(is[name]) !== JSON.stringify(from[name]),
        );
        if (moved) return null;
        const value = settingsFrom({ ...is, ...to });
        await putSettings(value, trx);
        return value;
      }),
    practised: (asked: RoundQuery): Promise<Practised> => practised(asked, db),
    practisedThings: (): Promise<readonly PractisedThing[]> => practisedThings(db),
    /** Keeps a round under the id that it comes with; one that comes again is there already. No round is of a time to come. */
    addRound: (round: KeptRound): Promise<void> =>
      transaction(db, async (trx) => {
        if (await trx('practice').where({ id: round.id }).first()) return;
        await roomFor(
          'practice',
          limits.practice,
          'rounds of practice',
          trx,
          'and is full: take some of the old ones out',
        );
        const at = now();
        await addRound({ ...round, at: round.at < at ? round.at : at }, trx);
      }),
    /** Takes a round out of the log. False where it is not in it. */
    removeRound: async (id: string): Promise<boolean> => (await db('practice').where({ id }).delete()) > 0,
    known: (): Promise<string[]> => knownShapes(db),
    addKnown: (shape: string): Promise<void> =>
      transaction(db, async (trx) => {
        if (await trx('known_shapes').where({ shape }).first()) return;
        await roomFor('known_shapes', limits.known, 'known shapes', trx);
        await trx('known_shapes').insert({ shape, since: now() });
      }),
    removeKnown: async (shape: string): Promise<void> => {
      await db('known_shapes').where({ shape }).delete();
    },
    /** Puts something into the bin if it still has the revision that was seen. False where it has moved on or is gone. */
    remove: async (kind: Kept, id: string, revision: number): Promise<boolean> =>
      (await live(TABLES[kind], db).where({ id, revision }).update({ deleted_at: now() })) > 0,
    /** Brings something back out of the bin. False where it is not in it. */
    bringBack: async (kind: Kept, id: string): Promise<boolean> =>
      (await binned(kind).where({ id }).update({ deleted_at: null })) > 0,
    readChart,
    rawChart,
    readInstrument,
    createChart: (draft: ChartDraft, key?: string): Promise<Chart> =>
      once(key, async (on) => {
        await roomFor('charts', limits.charts, 'charts', on);
        const id = world.id();
        const at = now();
        await on('charts').insert({ id, ...columns(draft), revision: 1, created_at: at, updated_at: at });
        return { ...draft, id, revision: 1, createdAt: at, updatedAt: at };
      }),
    /**
     * Changes a chart if it still has the revision that the change was made from, or makes it where that is 0. The same change that
     * comes again is answered as it was made, however much later. Null where the chart has moved on or is gone. Where it says of
     * which library it is, it changes no other.
     */
    changeChart: (id: string, { revision, ...draft }: ChartChange, library?: string): Promise<Chart | null> =>
      transaction(db, async (trx) => {
        if (library !== undefined && library !== (await identityOf(trx))) throw OTHER_LIBRARY;
        const written = columns(draft);
        const change = { ...written, revision: revision + 1, updated_at: now() };
        const is = (await trx('charts').where({ id }).first()) as Row | undefined;
        if (!is && revision === 0) {
          await roomFor('charts', limits.charts, 'charts', trx);
          await trx('charts').insert({ id, ...change, created_at: change.updated_at });
        } else if (!is || is.deleted_at !== null) return null;
        else if (is.revision === revision) await trx('charts').where({ id }).update(change);
        else {
          const { state, ...words } = written;
          const names = Object.keys(words) as (keyof typeof words)[];
          const isMade =
            is.revision === change.revision &&
            names.every((name) => is[name] === words[name]) &&
            unlooked(is.state) === unlooked(state);
          if (!isMade) return null;
        }
        const chart = await readChart(id, trx);
        return chart?.ok ? chart.value : null;
      }),
    /** How a chart is looked at: kept with it without a revision. False where it is gone. */
    lookAt: async (id: string, { front }: ChartLook): Promise<boolean> =>
      (await live('charts', db)
        .where({ id })
        .whereRaw('json_valid(state)')
        .update({ state: db.raw(`json_set(state, '$.front', json(?))`, [JSON.stringify(front)]) })) > 0,
    createInstrument: (instrument: Instrument, key?: string): Promise<KeptInstrument> =>
      once(key, async (on) => {
        await roomFor('instruments', limits.instruments, 'instruments', on);
        const row = {
          id: world.id(),
          instrument: JSON.stringify(instrument),
          revision: 1,
          updated_at: now(),
        };
        await on('instruments').insert(row);
        return toInstrument(row);
      }),
    /** As `changeChart`, for an instrument. */
    changeInstrument: (
      id: string,
      instrument: Instrument,
      revision: number,
      key?: string,
    ): Promise<KeptInstrument | null> =>
      once(key, async (on) => {
        const change = { instrument: JSON.stringify(instrument), revision: revision + 1, updated_at: now() };
        const changed = await live('instruments', on).where({ id, revision }).update(change);
        return changed ? readInstrument(id, on) : null;
      }),
  };
}

export type Library = ReturnType<typeof libraryOn>;

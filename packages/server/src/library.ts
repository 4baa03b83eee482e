import {
  BIN_DAYS,
  BIN_SHOWN,
  type Binned,
  dayAt,
  daysBetween,
  type LogPage,
  type LogParts,
  type LogQuery,
  type LogSum,
  type RecallAhead,
  type TempoDay,
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
  type KeptCard,
  type KeptRound,
  LIBRARY_LIMITS,
  type LibraryLimits,
  type PhrasePage,
  type PhraseQuery,
  type Practised,
  type PractisedThing,
  type Recall,
  type Review,
  type RoundQuery,
  type Settings,
  settingsFrom,
  type SettingsPatch,
  type Tagged,
  type UsedInstrument,
} from '@crow-ladder/contract';
import { type LoggedAnswer } from '@crow-ladder/contract/logFile';
import { type Instrument } from '@crow-ladder/core';
import { type NextLesson } from '@crow-ladder/core/asking';
import { type Knex } from 'knex';
import { clearDemo, demoLeft, isPlayed } from './demo.ts';
import { phrasePage } from './collection.ts';
import { chartPage, indexCharts, indexRows, tagList } from './lists.ts';
import { eachAnswered, eachLogged, logPage, logParts, logSum, recallAhead, tempoDays } from './log.ts';
import { addRound, practised, practisedLast, practisedThings } from './practice.ts';
import { addCards, addReview, nextToLearn, recallOn, removeReview } from './recall.ts';
import { identityOf } from './identity.ts';
import { transaction } from './transaction.ts';
import { iso, type World, WORLD } from './world.ts';
import { isForNow, OTHER_LIBRARY, Refused } from './refused.ts';
import { CHART_COLUMNS, columns, json, liveCharts, liveInstruments, toChart, toInstrument } from './rows.ts';
import { type ChartRow, type InstrumentRow } from './tables.ts';

const DAY_MS = 86_400_000;
const TABLES = { chart: 'charts', instrument: 'instruments' } as const satisfies Record<Kept, string>;
/** How long an answer is kept under its key, in days. */
const KEY_DAYS = 1;
/** How long a browser is known by a visit that has ended, in days. */
const KNOWN_DAYS = 365;

/** A change under a key of its own, which is made once. */
export interface Keyed {
  readonly key: string;
  /** What is asked for under it: a digest that is another one for another method, path or body. */
  readonly asked: string;
}

/** What a start leaves in the bin for the clock alone: how many things are due by it that were not by that of the start before. */
export interface Waiting {
  readonly waiting: number;
  /** The clock of the start before; null where there was none. */
  readonly since: string | null;
}

/** Everything that the API does with the database. A promise that resolves means that the change is on disk. */
export interface Library {
  /** Which library this is; another one after a backup took its place. */
  readonly identity: () => Promise<string | null>;
  /** Tells that a server was started: what has been in the bin for longer than it holds anything goes for good. */
  readonly begin: () => Promise<Waiting>;
  readonly charts: (query: ChartQuery, from: number) => Promise<ChartPage>;
  readonly tags: () => Promise<readonly Tagged[]>;
  /** Phrases of all charts. */
  readonly phrases: (query: PhraseQuery, from: number) => Promise<PhrasePage>;
  readonly readChart: (id: string) => Promise<Checked<Chart> | null>;
  /** The row of a chart as it stands. */
  readonly rawChart: (id: string) => Promise<ChartRow | null>;
  readonly createChart: (draft: ChartDraft, keyed?: Keyed) => Promise<Chart>;
  /**
   * Changes a chart if it still has the revision that the change was made from, or makes it where that is 0. The same change that
   * comes again is answered as it was made, however much later. Null where the chart has moved on or is gone. Where it says of
   * which library it is, it changes no other.
   */
  readonly changeChart: (id: string, change: ChartChange, library?: string) => Promise<Chart | null>;
  /** How a chart is looked at: kept with it without a revision. False where it is gone. */
  readonly lookAt: (id: string, look: ChartLook) => Promise<boolean>;
  readonly instruments: () => Promise<readonly UsedInstrument[]>;
  readonly readInstrument: (id: string) => Promise<KeptInstrument | null>;
  readonly createInstrument: (instrument: Instrument, keyed?: Keyed) => Promise<KeptInstrument>;
  /** As `changeChart`, for an instrument. */
  readonly changeInstrument: (
    id: string,
    instrument: Instrument,
    revision: number,
    keyed?: Keyed,
  ) => Promise<KeptInstrument | null>;
  /** Puts something into the bin if it still has the revision that was seen. False where it has moved on or is gone. */
  readonly remove: (kind: Kept, id: string, revision: number) => Promise<boolean>;
  /** What was deleted last, the last first. */
  readonly bin: () => Promise<readonly Binned[]>;
  /** Brings something back out of the bin. False where it is not in it. */
  readonly bringBack: (kind: Kept, id: string) => Promise<boolean>;
  /** Takes something out of the bin for good. False where it is not in it. */
  readonly discard: (kind: Kept, id: string) => Promise<boolean>;
  readonly demo: () => Promise<Demo>;
  readonly clearDemo: () => Promise<Demo>;
  readonly settings: () => Promise<Settings>;
  /**
   * Changes some of the settings and leaves the others as they are by then. Null where one of them is no longer what the change
   * was made from.
   */
  readonly changeSettings: (patch: SettingsPatch) => Promise<Settings | null>;
  readonly known: () => Promise<readonly string[]>;
  readonly addKnown: (shape: string) => Promise<void>;
  readonly removeKnown: (shape: string) => Promise<void>;
  readonly practised: (asked: RoundQuery) => Promise<Practised>;
  readonly practisedLast: () => Promise<PractisedThing | null>;
  readonly practisedThings: () => Promise<readonly PractisedThing[]>;
  /** Keeps a round under the id that it comes with; one that is there gets what is said of it now. No round is of a time to come. */
  readonly addRound: (round: KeptRound) => Promise<void>;
  /** Keeps rounds of a log that was kept elsewhere; those that are there already stay as they are. */
  readonly addRounds: (rounds: readonly KeptRound[]) => Promise<void>;
  /** Notes something on a round. False where it is not in the log. */
  readonly noteRound: (id: string, note: string) => Promise<boolean>;
  /** The days of a part of the log before a day, or its last days where that is empty. */
  readonly log: (query: LogQuery, before: string) => Promise<LogPage>;
  readonly logSum: (query: LogQuery) => Promise<LogSum>;
  readonly logParts: () => Promise<LogParts>;
  /** A part of the log, some rounds, and then some answers, at a time. */
  readonly eachLogged: (query: LogQuery) => AsyncGenerator<readonly KeptRound[]>;
  readonly eachAnswered: (query: LogQuery) => AsyncGenerator<readonly LoggedAnswer[]>;
  /** The tempo of one thing day by day. */
  readonly tempoDays: (asked: RoundQuery) => Promise<readonly TempoDay[]>;
  /** What is remembered on a day, and what comes due from then on. */
  readonly recallAhead: (day: string) => Promise<RecallAhead>;
  /** What is to be learned next; null where nothing is learned. */
  readonly nextToLearn: () => Promise<NextLesson | null>;
  /** Takes a round out of the log. False where it is not in it. */
  readonly removeRound: (id: string) => Promise<boolean>;
  /** What there is to recall on a day. */
  readonly recall: (day: string) => Promise<Recall>;
  /** Keeps cards; those that are there already stay as they are. */
  readonly addCards: (cards: readonly KeptCard[]) => Promise<void>;
  /** Leaves a card alone, or asks it again. False where it is gone. */
  readonly restCard: (id: string, rested: boolean) => Promise<boolean>;
  /** Takes a card away, and its answers with it. False where it is gone. */
  readonly removeCard: (id: string) => Promise<boolean>;
  /** Keeps an answer; one that comes again is there already. False where its card is gone. */
  readonly addReview: (review: Review) => Promise<boolean>;
  /** Takes an answer back. False where it is not there. */
  readonly removeReview: (id: string) => Promise<boolean>;
}

/** The text of a state, however it is looked at. */
const unlooked = (state: string): string => JSON.stringify({ ...(json(state) as object), front: null });

/** The settings as kept, with defaults for those that were never set. */
export async function readSettings(on: Knex): Promise<Settings> {
  const row = await on('facts').where({ name: 'settings' }).first();
  return settingsFrom(row ? (JSON.parse(row.value) as Partial<Settings>) : {});
}
export const putSettings = (value: Settings, on: Knex) =>
  on('facts')
    .insert({ name: 'settings', value: JSON.stringify(value) })
    .onConflict('name')
    .merge();

export const knownShapes = async (on: Knex): Promise<string[]> =>
  (await on('known_shapes').orderBy(['since', 'shape'])).map((row) => row.shape);

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

/** The library in a database. `settled` resolves once it is not being replaced. */
export function libraryOn(
  db: Knex,
  settled: () => Promise<unknown> = () => Promise.resolve(),
  world: World = WORLD,
  limits: LibraryLimits = LIBRARY_LIMITS,
): Library {
  const now = (): string => iso(world.now());
  const ago = (days: number, of = world.now()): string => iso(of - days * DAY_MS);
  const rawChart = async (id: string, on: Knex = db): Promise<ChartRow | null> =>
    (await liveCharts(on)
      .where({ id })
      .first(...CHART_COLUMNS)) ?? null;
  const readChart = async (id: string, on: Knex = db): Promise<Checked<Chart> | null> => {
    const row = await rawChart(id, on);
    return row && toChart(row);
  };
  const readInstrument = async (id: string, on: Knex = db): Promise<KeptInstrument | null> => {
    const row = await liveInstruments(on).where({ id }).first();
    return row ? toInstrument(row) : null;
  };

  /** A change that came with a key is made once: when it comes again within a day, it is answered as it was then. */
  const once = <T>(keyed: Keyed | undefined, change: (on: Knex.Transaction) => Promise<T>): Promise<T> =>
    transaction(db, async (trx) => {
      if (!keyed) return change(trx);
      const { key, asked } = keyed;
      const kept = await trx('answers').where({ key }).first();
      if (kept && kept.asked !== asked)
        throw new Refused(422, {
          code: 'key-used',
          message:
            'Something else was asked for under this idempotency key: give each change one of its own.',
        });
      if (kept) return JSON.parse(kept.answer) as T;
      const answer = await change(trx);
      await trx('answers').where('at', '<', ago(KEY_DAYS)).delete();
      if (answer !== null)
        await trx('answers').insert({ key, asked, answer: JSON.stringify(answer), at: now() });
      return answer;
    });
  /** No moment is to come, and its day is one that it can be somewhere: a page's clock may be wrong. */
  const sound = <T extends { readonly at: string; readonly day: string }>(it: T): T => {
    const at = it.at < now() ? it.at : now();
    const there = dayAt(Date.parse(at), 0);
    return { ...it, at, day: Math.abs(daysBetween(there, it.day)) > 1 ? there : it.day };
  };
  const roomForRounds = (many: number, on: Knex): Promise<void> =>
    roomFor(
      'practice',
      limits.practice - many + 1,
      'rounds of practice',
      on,
      'and is full: take some of the old ones out',
    );
  /** What is written of a chart is in the lists with the same write. */
  const written = async (id: string, on: Knex.Transaction): Promise<Chart | null> => {
    const row = await rawChart(id, on);
    if (!row) return null;
    const chart = toChart(row);
    await indexRows([{ row, chart }], on);
    return chart.ok ? chart.value : null;
  };

  const binned = (kind: Kept) => db(TABLES[kind]).whereNotNull('deleted_at');
  /** What has been in the bin for longer than it holds anything, by a clock in ms. */
  const due = (kind: Kept, by: number) => binned(kind).where('deleted_at', '<', ago(BIN_DAYS, by));
  /** Lists are read from the index, which is brought up to what was changed since. */
  const indexed = async <T>(read: () => Promise<T>): Promise<T> => {
    // Where nothing can be written for now, the index as it stands is read all the same.
    await indexCharts(db, settled).catch((error: unknown) => {
      if (!isForNow(error)) throw error;
    });
    return read();
  };

  return {
    identity: () => identityOf(db),
    begin: async () => {
      const before = (await db('facts').where({ name: 'started' }).first())?.value ?? null;
      // A clock may be wrong for once: nothing goes that was not due by the clock of the start before as well.
      const by = before === null ? 0 : Math.min(world.now(), Date.parse(before));
      let waiting = 0;
      for (const kind of ['chart', 'instrument'] as const) {
        await due(kind, by).delete();
        waiting += (await due(kind, world.now())).length;
      }
      await db('visits').where('until', '<', ago(KNOWN_DAYS, by)).delete();
      await db('facts').insert({ name: 'started', value: now() }).onConflict('name').merge();
      return { waiting, since: before };
    },
    demo: () => indexed(() => demoLeft(db)),
    clearDemo: () => indexed(() => transaction(db, (trx) => clearDemo(trx, now()))),
    bin: async () => {
      const all: Binned[] = [];
      for (const kind of ['chart', 'instrument'] as const)
        for (const row of await binned(kind).orderBy('deleted_at', 'desc').limit(BIN_SHOWN)) {
          const name = 'name' in row ? row.name : toInstrument(row).instrument.name;
          all.push({ kind, id: row.id, name, deletedAt: row.deleted_at! });
        }
      return all.sort((a, b) => b.deletedAt.localeCompare(a.deletedAt)).slice(0, BIN_SHOWN);
    },
    discard: async (kind, id) => (await binned(kind).where({ id }).delete()) > 0,
    charts: (query, from) =>
      indexed(async () => chartPage(db, query, from, (await readSettings(db)).ownScales)),
    tags: () => indexed(() => tagList(db)),
    phrases: (query, from) => indexed(() => phrasePage(db, query, from)),
    instruments: () =>
      indexed(async () => {
        const uses = db('chart_instruments')
          .join('charts', 'charts.id', 'chart_id')
          .whereNull('charts.deleted_at');
        const charts = uses.whereRaw('instrument_id = instruments.id').count('*').as('charts');
        const rows = (await liveInstruments(db)
          .orderBy('updated_at', 'desc')
          .select('instruments.*', charts)) as (InstrumentRow & { charts: number })[];
        return rows.map((row) => ({ ...toInstrument(row), charts: row.charts }));
      }),
    settings: () => readSettings(db),
    changeSettings: ({ from, to }) =>
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
    practised: (asked) => practised(asked, db),
    practisedLast: () => practisedLast(db),
    practisedThings: () => practisedThings(db),
    addRound: (round) =>
      transaction(db, async (trx) => {
        if (!(await trx('practice').where({ id: round.id }).first())) await roomForRounds(1, trx);
        await addRound(sound(round), trx);
      }),
    addRounds: (rounds) =>
      transaction(db, async (trx) => {
        const news = rounds.filter(({ id }, i) => rounds.findIndex((it) => it.id === id) === i);
        const ids = news.map(({ id }) => id);
        const has = new Set((await trx('practice').whereIn('id', ids).select('id')).map(({ id }) => id));
        const come = news.filter(({ id }) => !has.has(id));
        await roomForRounds(come.length, trx);
        for (const round of come) await addRound(sound(round), trx);
      }),
    noteRound: async (id, note) => (await db('practice').where({ id }).update({ note })) > 0,
    log: (query, before) => indexed(() => transaction(db, (trx) => logPage(trx, query, before))),
    logSum: (query) => indexed(() => transaction(db, (trx) => logSum(trx, query))),
    logParts: () => indexed(() => logParts(db)),
    eachLogged: (query) => eachLogged(db, query),
    eachAnswered: (query) => eachAnswered(db, query),
    tempoDays: (asked) => tempoDays(asked, db),
    recallAhead: (day) => recallAhead(day, db),
    nextToLearn: async () => {
      const { fingering: school, spanMm } = await readSettings(db);
      return nextToLearn({ school, spanMm }, db);
    },
    removeRound: async (id) => (await db('practice').where({ id }).delete()) > 0,
    recall: (day) =>
      transaction(db, async (trx) => ({ ...(await recallOn(day, trx)), own: await isPlayed(trx) })),
    addCards: (cards) =>
      transaction(db, async (trx) => {
        const has = new Set(
          (
            await trx('cards')
              .whereIn(
                'id',
                cards.map(({ id }) => id),
              )
              .select('id')
          ).map(({ id }) => id),
        );
        const news = cards.filter(({ id }) => !has.has(id));
        await roomFor(
          'cards',
          limits.cards - news.length + 1,
          'cards',
          trx,
          'and has no room for these: take some of them away',
        );
        await addCards(news, trx);
      }),
    restCard: async (id, rested) =>
      (await db('cards')
        .where({ id })
        .update({ rested: rested ? 1 : 0 })) > 0,
    removeCard: async (id) => (await db('cards').where({ id }).delete()) > 0,
    addReview: (review) =>
      transaction(db, async (trx) => {
        await roomFor('reviews', limits.reviews, 'answers', trx, 'and is full: take old cards away');
        return addReview(sound(review), trx);
      }),
    removeReview: (id) => transaction(db, (trx) => removeReview(id, trx)),
    known: () => knownShapes(db),
    addKnown: (shape) =>
      transaction(db, async (trx) => {
        if (await trx('known_shapes').where({ shape }).first()) return;
        await roomFor('known_shapes', limits.known, 'known shapes', trx);
        await trx('known_shapes').insert({ shape, since: now() });
      }),
    removeKnown: async (shape) => {
      await db('known_shapes').where({ shape }).delete();
    },
    remove: async (kind, id, revision) =>
      (await db(TABLES[kind]).whereNull('deleted_at').where({ id, revision }).update({ deleted_at: now() })) >
      0,
    bringBack: async (kind, id) => (await binned(kind).where({ id }).update({ deleted_at: null })) > 0,
    readChart,
    rawChart,
    readInstrument,
    createChart: (draft, keyed) =>
      once(keyed, async (on) => {
        await roomFor('charts', limits.charts, 'charts', on);
        const id = world.id();
        const at = now();
        await on('charts').insert({ id, ...columns(draft), revision: 1, created_at: at, updated_at: at });
        return (await written(id, on))!;
      }),
    changeChart: (id, { revision, ...draft }, library) =>
      transaction(db, async (trx) => {
        if (library !== undefined && library !== (await identityOf(trx))) throw OTHER_LIBRARY;
        const own = columns(draft);
        const change = { ...own, revision: revision + 1, updated_at: now() };
        const is = await trx('charts').where({ id }).first();
        if (!is && revision === 0) {
          await roomFor('charts', limits.charts, 'charts', trx);
          await trx('charts').insert({ id, ...change, created_at: change.updated_at });
        } else if (!is || is.deleted_at !== null) return null;
        else if (is.revision === revision) await trx('charts').where({ id }).update(change);
        else {
          const { state, ...words } = own;
          const names = Object.keys(words) as (keyof typeof words)[];
          const isMade =
            is.revision === change.revision &&
            names.every((name) => is[name] === words[name]) &&
            unlooked(is.state) === unlooked(state);
          const chart = isMade ? await readChart(id, trx) : null;
          return chart?.ok ? chart.value : null;
        }
        return written(id, trx);
      }),
    lookAt: async (id, { front }) =>
      (await liveCharts(db)
        .where({ id })
        .whereRaw('json_valid(state)')
        .update('state', db.raw(`json_set(state, '$.front', json(?))`, [JSON.stringify(front)]))) > 0,
    createInstrument: (instrument, keyed) =>
      once(keyed, async (on) => {
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
    changeInstrument: (id, instrument, revision, keyed) =>
      once(keyed, async (on) => {
        const change = { instrument: JSON.stringify(instrument), revision: revision + 1, updated_at: now() };
        const changed = await liveInstruments(on).where({ id, revision }).update(change);
        return changed ? readInstrument(id, on) : null;
      }),
  };
}

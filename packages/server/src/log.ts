import {
  AHEAD,
  ANSWER_COUNTS_MS,
  type AnsweredCard,
  type DaySum,
  ELSEWHERE,
  type Grade,
  type KeptRound,
  type KeyWent,
  LOG_PAGE,
  type LogDay,
  type LogPage,
  type LogParts,
  type LogQuery,
  type LogSum,
  type PositionWent,
  RECALLED,
  type RecallAhead,
  type RecalledDay,
  type Remembered,
  type RoundQuery,
  type StringWent,
  type TempoDay,
  WEAK,
  type Went,
  daysBetween,
} from '@crow-ladder/contract';
import { likelyOn } from '@crow-ladder/contract/schedule';
import { type LoggedAnswer } from '@crow-ladder/contract/logFile';
import { LIMITS } from '@crow-ladder/core';
import { type Knex } from 'knex';
import { LATEST, roundsOf, toRound } from './practice.ts';
import { type RoundRow } from './tables.ts';

/** A kind of drill: what its word begins with. */
const KIND = `CASE instr(drill, '.') WHEN 0 THEN drill ELSE substr(drill, 1, instr(drill, '.') - 1) END`;

/** Whether a part of the log can have what was recalled in it: that is of no chart. */
const hasRecall = ({ chart, tag, what }: LogQuery): boolean => !chart && !tag && (!what || what === RECALLED);
/** The rounds of a part of the log. */
function rounds(on: Knex, { from, to, chart, what, tag }: LogQuery) {
  const all = on('practice');
  if (from) void all.where('day', '>=', from);
  if (to) void all.where('day', '<=', to);
  if (chart) void all.where({ chart_id: chart });
  if (what) void all.whereRaw(`${KIND} = ?`, [what]);
  if (tag) void all.whereIn('chart_id', on('chart_tags').where({ tag }).select('chart_id'));
  return all;
}
/** The answers of a part of the log. */
function answers(on: Knex, query: LogQuery) {
  const all = on('reviews');
  if (query.from) void all.where('day', '>=', query.from);
  if (query.to) void all.where('day', '<=', query.to);
  if (!hasRecall(query)) void all.whereRaw('0');
  return all;
}
/** The time of an answer that counts. */
const COUNTED = `min(ms, ${ANSWER_COUNTS_MS})`;

/** What was recalled on a day. */
async function recalledOn(day: string, on: Knex): Promise<RecalledDay | null> {
  const all = () => on('reviews').where({ day });
  const sum = (await all()
    .select(on.raw(`count(*) AS answers, sum(grade > 1) AS known, sum(${COUNTED}) AS ms`))
    .first()) as unknown as Record<'answers' | 'known' | 'ms', number | null>;
  if (!sum.answers) return null;
  const cards = (await all()
    .join('cards', 'cards.id', 'card_id')
    .groupBy('card_id')
    .select('cards.id', 'cards.name', on.raw('count(*) AS answers, min(grade) AS grade'))
    .orderBy(['grade', { column: 'answers', order: 'desc' }, 'cards.number'])
    .limit(LOG_PAGE.cards)) as unknown as AnsweredCard[];
  return { answers: sum.answers, known: sum.known!, ms: sum.ms!, cards };
}

/** The days of a part of the log before a day, or its last days. */
export async function logPage(on: Knex, query: LogQuery, before: string): Promise<LogPage> {
  const days = async (of: Knex.QueryBuilder): Promise<string[]> => {
    if (before) void of.where('day', '<', before);
    const rows = (await of
      .distinct('day')
      .orderBy('day', 'desc')
      .limit(LOG_PAGE.days + 1)) as { day: string }[];
    return rows.map(({ day }) => day);
  };
  const found = new Set([...(await days(rounds(on, query))), ...(await days(answers(on, query)))]);
  const all = [...found].sort().reverse();
  const page: LogDay[] = [];
  let given = 0;
  for (const day of all.slice(0, LOG_PAGE.days)) {
    if (given >= LOG_PAGE.enough) break;
    const one = { ...query, from: day, to: day };
    const [{ n }] = (await rounds(on, one).count({ n: '*' })) as [{ n: number }];
    const rows = await rounds(on, one).orderBy(LATEST).limit(LOG_PAGE.rounds);
    given += rows.length;
    page.push({
      day,
      rounds: (rows as RoundRow[]).map(toRound),
      more: n - rows.length,
      recalled: hasRecall(query) ? await recalledOn(day, on) : null,
    });
  }
  return { days: page, earlier: all.length > page.length };
}

/** Those that went worst, first; of which there is too little, nothing is said. */
const worst = <T extends Went>(all: readonly T[]): readonly T[] =>
  all
    .filter((it) => it.of >= WEAK.of && it.not > 0)
    .sort((a, b) => b.not / b.of - a.not / a.of || b.of - a.of)
    .slice(0, WEAK.shown);
/** What went how, with what is the same taken together. */
function together<T extends Went>(all: readonly T[], id: (it: T) => string): readonly T[] {
  const by = new Map<string, T>();
  for (const it of all) {
    const is = by.get(id(it));
    by.set(id(it), is ? { ...it, of: is.of + it.of, not: is.not + it.not } : it);
  }
  return [...by.values()];
}

/** What a part of the log comes to. */
export async function logSum(on: Knex, query: LogQuery): Promise<LogSum> {
  const days = new Map<string, DaySum>();
  const put = (day: string, part: Partial<DaySum>): void => {
    const none = { day, playedMs: 0, rounds: 0, clean: 0, recalledMs: 0, answers: 0, known: 0 };
    days.set(day, { ...(days.get(day) ?? none), ...part });
  };
  const played = await rounds(on, query)
    .groupBy('day')
    .select('day', on.raw('sum(ms) AS playedMs, count(*) AS rounds, coalesce(sum(clean), 0) AS clean'));
  for (const { day, ...sums } of played as unknown as DaySum[]) put(day, sums);
  const recalled = await answers(on, query)
    .groupBy('day')
    .select('day', on.raw(`sum(${COUNTED}) AS recalledMs, count(*) AS answers, sum(grade > 1) AS known`));
  for (const { day, ...sums } of recalled as unknown as DaySum[]) put(day, sums);

  const judged = () =>
    rounds(on, query)
      .whereNotNull('clean')
      .whereNotNull('root')
      .select(on.raw('count(*) AS "of", sum(1 - clean) AS "not"'));
  const byCard = answers(on, query)
    .groupBy('card_id')
    .select('card_id', on.raw('count(*) AS "of", sum(grade = 1) AS "not"'))
    .as('went');
  const cards = (await on(byCard)
    .join('cards', 'cards.id', 'went.card_id')
    .select(
      'went.of',
      'went.not',
      on.raw(
        `json_extract(card, '$.root') AS root, json_extract(card, '$.scale') AS scale, json_extract(card, '$.ref.start') AS start`,
      ),
    )) as (KeyWent & PositionWent)[];
  const keys = [
    ...((await judged().groupBy('root', 'scale').select('root', 'scale')) as unknown as KeyWent[]),
    ...cards.map(({ root, scale, of, not }) => ({ root, scale, of, not })),
  ];
  const positions = [
    ...((await judged().groupBy('scale', 'start').select('scale', 'start')) as unknown as PositionWent[]),
    ...cards.map(({ scale, start, of, not }) => ({ scale, start, of, not })),
  ];
  const numbers = Array.from({ length: LIMITS.strings[1] }, (_, i) => i + 1);
  const bits = (await answers(on, query)
    .select(
      on.raw(
        numbers
          .map((s) => `sum(strings >> ${s} & 1) AS of${s}, sum(missed >> ${s} & 1) AS not${s}`)
          .join(', '),
      ),
    )
    .first()) as unknown as Record<string, number | null>;
  const strings = numbers.map((string): StringWent => ({
    string,
    of: bits[`of${string}`] ?? 0,
    not: bits[`not${string}`] ?? 0,
  }));
  return {
    days: [...days.values()].sort((a, b) => a.day.localeCompare(b.day)),
    keys: worst(together(keys, ({ root, scale }) => `${root} ${scale}`)),
    positions: worst(together(positions, ({ scale, start }) => `${scale} ${start}`)),
    strings: worst(strings),
  };
}

/** What the log can be narrowed to. */
export async function logParts(on: Knex): Promise<LogParts> {
  // The name of a chart is the one that it had last.
  const charts = (await on('practice')
    .whereNotNull('chart_id')
    .groupBy('chart_id')
    .max({ last: 'at' })
    .select({ id: 'chart_id' }, { name: 'chart_name' })
    .orderBy('last', 'desc')
    .limit(200)) as { id: string; name: string }[];
  const kinds = (await on('practice')
    .whereNot({ drill: ELSEWHERE })
    .distinct(on.raw(`${KIND} AS kind`))
    .orderBy('kind')) as unknown as { kind: string }[];
  const tags = await on('chart_tags')
    .whereIn('chart_id', on('practice').whereNotNull('chart_id').select('chart_id') as never)
    .distinct('tag')
    .orderBy('tag')
    .limit(200);
  return {
    charts: charts.map(({ id, name }) => ({ id, name })),
    drills: kinds.map(({ kind }) => kind),
    tags: tags.map(({ tag }) => tag),
  };
}

/** The tempo of one thing day by day. */
export async function tempoDays(asked: RoundQuery, on: Knex): Promise<readonly TempoDay[]> {
  const rows = await roundsOf(asked, on)
    .whereNotNull('tempo')
    .groupBy('day')
    .orderBy('day')
    .select('day', on.raw('max(CASE WHEN clean THEN tempo END) AS clean, max(tempo) AS tried'));
  return rows as unknown as TempoDay[];
}

/** What is remembered on a day, and what comes due from then on. */
export async function recallAhead(day: string, on: Knex): Promise<RecallAhead> {
  const rows = await on('cards').where({ rested: 0 }).whereNotNull('due').select('remembered', 'due');
  const due = Array.from({ length: AHEAD.days }, () => 0);
  let known = 0;
  let firm = 0;
  for (const row of rows) {
    const is = JSON.parse(row.remembered!) as Remembered;
    known += likelyOn(is, day);
    if (is.stability >= AHEAD.firm) firm++;
    const at = Math.max(0, daysBetween(day, row.due!));
    if (at < due.length) due[at]!++;
  }
  return { cards: rows.length, known: Math.round(known), firm, due };
}

/** How many rows are read at a time. */
const AT_A_TIME = 500;
interface At {
  readonly at: string;
  readonly rowid: number;
}
/** A part of the log from its beginning on, some rows at a time. */
async function* inTime<Row extends At>(page: (after: At) => Promise<Row[]>): AsyncGenerator<readonly Row[]> {
  for (let after: At = { at: '', rowid: 0 }; ;) {
    const rows = await page(after);
    if (!rows.length) return;
    yield rows;
    after = rows.at(-1)!;
  }
}
const later = (of: Knex.QueryBuilder, table: string, { at, rowid }: At): Knex.QueryBuilder =>
  of
    .whereRaw(`(${table}.at, ${table}.rowid) > (?, ?)`, [at, rowid])
    .orderByRaw(`${table}.at, ${table}.rowid`)
    .limit(AT_A_TIME);

/** The rounds of a part of the log as they were played, some at a time. */
export async function* eachLogged(on: Knex, query: LogQuery): AsyncGenerator<readonly KeptRound[]> {
  const pages = inTime(
    (after) =>
      later(rounds(on, query), 'practice', after).select('*', on.raw('practice.rowid AS rowid')) as Promise<
        (RoundRow & At)[]
      >,
  );
  for await (const rows of pages) yield rows.map(toRound);
}
/** The answers of a part of the log as they were given, some at a time. */
export async function* eachAnswered(on: Knex, query: LogQuery): AsyncGenerator<readonly LoggedAnswer[]> {
  const pages = inTime(
    (after) =>
      later(answers(on, query), 'reviews', after)
        .join('cards', 'cards.id', 'card_id')
        .select(
          'reviews.id',
          'reviews.at',
          'day',
          'grade',
          'ms',
          'cards.name',
          on.raw(
            `reviews.rowid AS rowid, json_extract(card, '$.root') AS root, json_extract(card, '$.scale') AS scale`,
          ),
        ) as Promise<(At & LoggedAnswer & { readonly grade: Grade })[]>,
  );
  for await (const rows of pages) yield rows.map(({ rowid: _, ...row }) => row);
}

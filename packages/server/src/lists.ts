import {
  aboutOf,
  aboutSaid,
  type Chart,
  CHART_PAGE,
  type ChartOrder,
  type ChartPage,
  type ChartQuery,
  type ChartSummary,
  type Checked,
  DEFAULT_SETTINGS,
  foldedText,
  type OwnScale,
  type Tagged,
  type Unreadable,
} from '@crow-ladder/contract';
import { findScales, parseNote, pitchClass, ROOTS, tuningText, tuningWords } from '@crow-ladder/core';
import { type Knex } from 'knex';
import { phraseRows } from './collection.ts';
import { CHART_COLUMNS, json, liveCharts, toChart } from './rows.ts';
import { type ChartRow, type IndexRow } from './tables.ts';
import { transaction } from './transaction.ts';

/** Goes up with what the index says of a chart, and with what can be read; then all charts are read anew. */
const INDEX_VERSION = 2;
/** How many charts are read between two looks at what else there is to do. */
const AT_A_TIME = 50;
/** Most tags that are listed. */
const TAGS = 200;

/** What a chart is found by: all that is said of it in the list and all that was written about it, in either spelling. */
function wordsOf({ name, tags, notes, state }: Chart): string {
  const { key, instrument } = state;
  const about = aboutOf(state);
  const said = (['sharps', 'flats'] as const).map((spelling) =>
    aboutSaid(about, { ...DEFAULT_SETTINGS, spelling }),
  );
  const all = [name, ...tags, notes, key.root, ...new Set(said), instrument.name];
  return foldedText(
    [...all, tuningText(instrument.tuning, 'sharps'), ...tuningWords(instrument.tuning)].join('\n'),
  );
}

function indexRow(row: ChartRow, chart: Checked<Chart>): IndexRow {
  const by = { chart_id: row.id, sort_name: foldedText(row.name) };
  if (!chart.ok) return { ...by, reason: chart.error.message, root: '', scale: '', shown: '{}', words: '' };
  const { name, tags, state } = chart.value;
  const shown = JSON.stringify({ name, tags, about: aboutOf(state) });
  return { ...by, reason: null, ...state.key, shown, words: wordsOf(chart.value) };
}

/** A row, and what it is read as. */
export interface ReadRow {
  readonly row: ChartRow;
  readonly chart: Checked<Chart>;
}
/** How many rows go into a table at a time. */
const ROWS = 100;

/** Puts into the index what some rows say. */
export async function indexRows(some: readonly ReadRow[], on: Knex.Transaction): Promise<void> {
  const ids = some.map(({ row }) => row.id);
  const index = some.map(({ row, chart }) => indexRow(row, chart));
  await on('chart_index').insert(index).onConflict('chart_id').merge();
  const entries = (of: (chart: Chart) => readonly object[]): object[] =>
    some.flatMap(({ row, chart }) =>
      chart.ok ? of(chart.value).map((it) => ({ ...it, chart_id: row.id })) : [],
    );
  const tags = entries((c) => [...new Set(c.tags)].map((tag) => ({ tag })));
  const instruments = entries(({ state }) => {
    const used = [state.instrumentId, ...state.others.map((o) => o.instrumentId)];
    return [...new Set(used)].flatMap((id) => (id === null ? [] : [{ instrument_id: id }]));
  });
  const phrases = entries(phraseRows);
  for (const [table, rows] of Object.entries({
    chart_tags: tags,
    chart_instruments: instruments,
    chart_phrases: phrases,
  })) {
    await on(table).whereIn('chart_id', ids).delete();
    for (let i = 0; i < rows.length; i += ROWS) await on(table).insert(rows.slice(i, i + ROWS));
  }
  await on('charts').whereIn('id', ids).update({ indexed: INDEX_VERSION });
}

/** Has the charts indexed that another version of the index knows. */
export const indexAnew = async (db: Knex): Promise<void> => {
  await db('charts').whereNotIn('indexed', [0, INDEX_VERSION]).update({ indexed: 0 });
};

/** Brings the index up to what stands in the charts, once the library is `settled`; there is nothing to wait for where nothing was changed. */
export async function indexCharts(
  db: Knex,
  settled: () => Promise<unknown> = () => Promise.resolve(),
): Promise<void> {
  const stale = (on: Knex) =>
    on('charts').where({ indexed: 0 }).limit(AT_A_TIME).select(CHART_COLUMNS) as unknown as Promise<
      ChartRow[]
    >;
  while ((await stale(db)).length) {
    await settled();
    await transaction(db, async (trx) => {
      const rows = await stale(trx);
      if (rows.length)
        await indexRows(
          rows.map((row) => ({ row, chart: toChart(row) })),
          trx,
        );
    });
  }
}

const ORDER: Readonly<Record<ChartOrder, readonly { readonly column: string; readonly order?: 'desc' }[]>> = {
  changed: [{ column: 'charts.updated_at', order: 'desc' }, { column: 'charts.id' }],
  made: [{ column: 'charts.created_at', order: 'desc' }, { column: 'charts.id' }],
  name: [{ column: 'chart_index.sort_name' }, { column: 'chart_index.chart_id' }],
  key: [
    { column: 'chart_index.root' },
    { column: 'chart_index.sort_name' },
    { column: 'chart_index.chart_id' },
  ],
};

/** Charts with a word in them: by the index where it is long enough for that, and by the names of the player's own scales. */
function withWord(charts: Knex.QueryBuilder, word: string, own: readonly OwnScale[]): void {
  const scales = own.filter((o) => foldedText(o.name).includes(word)).map((o) => o.id);
  void charts.where((q) => {
    if ([...word].length < 3) void q.whereRaw('instr(chart_index.words, ?) > 0', [word]);
    else
      void q.whereRaw('chart_index.number IN (SELECT rowid FROM chart_words WHERE chart_words MATCH ?)', [
        `"${word.replaceAll('"', '""')}"`,
      ]);
    if (scales.length) void q.orWhereIn('chart_index.scale', scales);
  });
}

/** The key that a search says in full, as charts keep it: "A minor pentatonic"; null where it says none. */
function keyIn(find: string): { readonly roots: readonly string[]; readonly scale: string } | null {
  const [first = '', ...called] = find.trim().split(/\s+/);
  const root = parseNote(first);
  const name = foldedText(called.join(' '));
  const [scale] = root.ok && name ? findScales(name) : [];
  return root.ok && scale && [scale.name, ...scale.aliases].map(foldedText).includes(name)
    ? { roots: ROOTS[pitchClass(root.value)]!, scale: scale.id }
    : null;
}

/** One page of the charts that are asked for, from the `from`th on. */
export async function chartPage(
  db: Knex,
  { find, tag, order }: ChartQuery,
  from: number,
  own: readonly OwnScale[],
): Promise<ChartPage> {
  const all = liveCharts(db).join('chart_index', 'chart_index.chart_id', 'charts.id');
  const readable = all.clone().whereNull('chart_index.reason');
  for (const word of foldedText(find).split(/\s+/).filter(Boolean)) withWord(readable, word, own);
  if (tag)
    void readable.whereExists(
      db('chart_tags').where({ tag }).whereRaw('chart_tags.chart_id = charts.id').select(db.raw('1')),
    );
  const key = keyIn(find);
  const inKeyFirst = readable.clone();
  if (key)
    void inKeyFirst.orderByRaw(
      `(chart_index.scale = ? AND chart_index.root IN (${key.roots.map(() => '?').join()})) DESC`,
      [key.scale, ...key.roots],
    );
  const rows = (await inKeyFirst
    .orderBy([...ORDER[order]])
    .limit(CHART_PAGE)
    .offset(from)
    .select('charts.id', 'revision', 'updated_at', 'shown')) as (Pick<
    ChartRow,
    'id' | 'revision' | 'updated_at'
  > & { shown: string })[];
  const count = async (of: Knex.QueryBuilder): Promise<number> =>
    ((await of.clone().count({ n: '*' })) as { n: number }[])[0]!.n;
  const unreadable = (await all
    .clone()
    .whereNotNull('chart_index.reason')
    .limit(CHART_PAGE)
    .select('charts.id', 'charts.name', 'reason', 'revision')) as Unreadable[];
  return {
    charts: rows.map(({ updated_at: updatedAt, shown, ...row }) => ({
      ...row,
      updatedAt,
      ...(json(shown) as Pick<ChartSummary, 'name' | 'tags' | 'about'>),
    })),
    found: await count(readable),
    all: await count(liveCharts(db)),
    unreadable,
  };
}

/** The tags of the charts, the most used first. */
export const tagList = (db: Knex): Promise<readonly Tagged[]> =>
  liveCharts(db)
    .join('chart_tags', 'chart_tags.chart_id', 'charts.id')
    .groupBy('tag')
    .orderBy([{ column: 'charts', order: 'desc' }, { column: 'tag' }])
    .limit(TAGS)
    .select('tag', db.raw('count(*) AS charts')) as unknown as Promise<readonly Tagged[]>;

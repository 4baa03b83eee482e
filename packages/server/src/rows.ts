import { createHash } from 'node:crypto';
import {
  type Chart,
  type ChartDraft,
  type Checked,
  type KeptInstrument,
  MOST_REVISION,
  withoutOdd,
} from '@crow-ladder/contract';
import { isId, isStamp, readDraft } from '@crow-ladder/contract/schemas';
import { type Instrument } from '@crow-ladder/core';
import { type Knex } from 'knex';
import { type CardRow, type ChartRow, type InstrumentRow, type ReviewRow, type RoundRow } from './tables.ts';
import { iso } from './world.ts';

/** The columns of a chart that are a player's. */
export const CHART_COLUMNS = [
  'id',
  'name',
  'tags',
  'notes',
  'state',
  'revision',
  'created_at',
  'updated_at',
] as const satisfies readonly (keyof ChartRow)[];

/** What stands in the library and not in its bin. */
export const liveCharts = (on: Knex) => on('charts').whereNull('charts.deleted_at');
export const liveInstruments = (on: Knex) => on('instruments').whereNull('deleted_at');

/** A text as JSON; null where it is none. */
export const json = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
};

/** How far a revision can be counted, and said in 15 digits. */
const COUNTED = 999_999_999_999_999;

/** A row whose id, revision and dates are such as the library gives: one that is not gets another one, always the same. */
export function soundRow(row: ChartRow): ChartRow {
  const { id, revision, created_at, updated_at } = row;
  const moment = (at: string): string => (isStamp(at) ? at : iso(0));
  return {
    ...row,
    id: isId(id) ? id : `row-${createHash('sha256').update(id).digest('hex').slice(0, 20)}`,
    revision: !Number.isInteger(revision) || revision < 1 ? 1 : revision > COUNTED ? MOST_REVISION : revision,
    created_at: moment(created_at),
    updated_at: moment(updated_at),
  };
}
const LIBRARYS_OWN = [
  ['id', 'id'],
  ['revision', 'revision'],
  ['created_at', 'date'],
  ['updated_at', 'date'],
] as const;

/** A row read as a chart, of whatever version it is. */
export function toChart(row: ChartRow): Checked<Chart> {
  const { id, name, notes, revision, created_at: createdAt, updated_at: updatedAt } = row;
  const sound = soundRow(row);
  const odd = LIBRARYS_OWN.find(([column]) => row[column] !== sound[column]);
  if (odd)
    return {
      ok: false,
      error: {
        code: 'invalid',
        message: `Its ${odd[1]} cannot be used: save a backup and bring it back, which puts it right.`,
      },
    };
  // A row of before there was a rule for texts is read without what they may not have.
  const draft = readDraft(withoutOdd({ name, notes, tags: json(row.tags), state: json(row.state) }));
  return draft.ok ? { ok: true, value: { ...draft.value, id, revision, createdAt, updatedAt } } : draft;
}

/** What a player writes of a chart, as columns. */
export const columns = (draft: ChartDraft) => ({
  name: draft.name,
  tags: JSON.stringify(draft.tags),
  notes: draft.notes,
  state: JSON.stringify(draft.state),
});

export const toInstrument = (row: InstrumentRow): KeptInstrument => ({
  id: row.id,
  instrument: JSON.parse(row.instrument) as Instrument,
  revision: row.revision,
  updatedAt: row.updated_at,
});

/** How many rows are read at a time, so that nothing else waits long. */
const AT_A_TIME = 100;
/** The charts of a library by id, a few at a time. */
export async function* eachRow(on: Knex): AsyncGenerator<readonly ChartRow[]> {
  for (let after: string | null = null; ;) {
    const all = liveCharts(on)
      .orderBy('id')
      .limit(AT_A_TIME)
      .select(...CHART_COLUMNS);
    const rows: ChartRow[] = await (after === null ? all : all.where('id', '>', after));
    if (!rows.length) return;
    yield rows;
    after = rows.at(-1)!.id;
  }
}

/** Rows of a table that are read at a time where none is large. */
const SMALL_AT_A_TIME = 500;
interface Rows {
  readonly practice: RoundRow;
  readonly cards: CardRow;
  readonly reviews: ReviewRow;
}
/** A whole table in the order in which its rows were kept, read some at a time. */
export async function* eachOf<Name extends keyof Rows, T>(
  on: Knex,
  table: Name,
  read: (row: Rows[Name]) => T,
): AsyncGenerator<readonly T[]> {
  for (let after = 0; ;) {
    const rows = (await on(table as 'practice')
      .where('rowid', '>', after)
      .orderBy('rowid')
      .limit(SMALL_AT_A_TIME)
      .select('*', on.raw('rowid AS rowid'))) as unknown as (Rows[Name] & { readonly rowid: number })[];
    if (!rows.length) return;
    yield rows.map(({ rowid, ...row }) => {
      after = rowid;
      return read(row as unknown as Rows[Name]);
    });
  }
}

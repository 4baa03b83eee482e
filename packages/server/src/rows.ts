import {
  type Chart,
  type ChartDraft,
  type Checked,
  type KeptInstrument,
  withoutOdd,
} from '@crow-ladder/contract';
import { readDraft } from '@crow-ladder/contract/schemas';
import { type Instrument } from '@crow-ladder/core';
import { type Knex } from 'knex';

export interface ChartRow {
  readonly id: string;
  readonly name: string;
  readonly tags: string;
  readonly notes: string;
  readonly state: string;
  readonly revision: number;
  readonly created_at: string;
  readonly updated_at: string;
}
export interface InstrumentRow {
  readonly id: string;
  readonly instrument: string;
  readonly revision: number;
  readonly updated_at: string;
}
/** The columns of a chart that are a player's. */
export const CHART_COLUMNS = ['id', 'name', 'tags', 'notes', 'state', 'revision', 'created_at', 'updated_at'];

export const live = (table: string, on: Knex) => on(table).whereNull('deleted_at');

/** A text as JSON; null where it is none. */
export const json = (text: string): unknown => {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
};

/** A row read as a chart, of whatever version it is. */
export function toChart(row: ChartRow): Checked<Chart> {
  const { id, name, notes, revision, created_at: createdAt, updated_at: updatedAt } = row;
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
  for (let after = ''; ;) {
    const rows = (await live('charts', on)
      .where('id', '>', after)
      .orderBy('id')
      .limit(AT_A_TIME)
      .select(CHART_COLUMNS)) as ChartRow[];
    if (!rows.length) return;
    yield rows;
    after = rows.at(-1)!.id;
  }
}

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
/** What was put into the bin, and when. */
interface Binnable {
  readonly deleted_at: string | null;
}
export interface RoundRow {
  readonly id: string;
  readonly at: string;
  readonly day: string;
  readonly drill: string;
  readonly shape: string;
  readonly name: string;
  readonly per_beat: number | null;
  readonly tempo: number | null;
  readonly clean: number | null;
  readonly ms: number;
  /** What it was played on, all of it or none. */
  readonly chart_id: string | null;
  readonly chart_name: string | null;
  readonly root: string | null;
  readonly scale: string | null;
  readonly start: number | null;
  readonly back: string | null;
  readonly note: string;
}
export interface CardRow {
  readonly id: string;
  readonly kind: string;
  readonly card: string;
  readonly name: string;
  readonly made: string;
  readonly rested: number;
  /** How it is remembered, and when it is due: what its answers say. Null before the first one. */
  readonly remembered: string | null;
  readonly due: string | null;
  /** The day of its first answer. */
  readonly first: string | null;
}
export interface ReviewRow {
  readonly id: string;
  readonly card_id: string;
  readonly kind: string;
  readonly at: string;
  readonly day: string;
  readonly grade: number;
  readonly ms: number;
  /** Strings as bits by their number: those that were asked about, and those that were missed. */
  readonly strings: number;
  readonly missed: number;
}
export interface IndexRow {
  readonly chart_id: string;
  readonly reason: string | null;
  readonly root: string;
  readonly scale: string;
  readonly sort_name: string;
  readonly shown: string;
  readonly words: string;
}

export interface PhraseRow extends Readonly<Record<`above_${number}`, number>> {
  readonly chart_id: string;
  /** Its place among the chart's phrases. */
  readonly at: number;
  readonly words: string;
  readonly phrase: string;
  readonly notes: number;
  readonly line: string;
  readonly ticks: number;
}

/** A table some of whose columns have a value of their own. */
type Table<Row, Own> = Knex.CompositeTableType<Row & Own, Row & Partial<Own>, Partial<Row & Own>>;

declare module 'knex/types/tables' {
  interface Tables {
    charts: Table<ChartRow, Binnable & { readonly indexed: number }>;
    instruments: Table<Omit<InstrumentRow, 'revision'>, Binnable & Pick<InstrumentRow, 'revision'>>;
    practice: Table<RoundRow, { readonly rowid: number }>;
    cards: Table<CardRow, { readonly number: number }>;
    reviews: Table<ReviewRow, { readonly number: number }>;
    known_shapes: { readonly shape: string; readonly since: string };
    facts: { readonly name: string; readonly value: string };
    answers: {
      readonly key: string;
      /** What was asked for under the key: a digest of method, path and body. */
      readonly asked: string;
      readonly answer: string;
      readonly at: string;
    };
    visits: { readonly token: string; readonly until: string };
    chart_index: Table<IndexRow, { readonly number: number }>;
    chart_tags: { readonly tag: string; readonly chart_id: string };
    chart_phrases: PhraseRow;
    chart_instruments: { readonly instrument_id: string; readonly chart_id: string };
  }
}

import {
  type ApiError,
  CHART_BYTES,
  type Chart,
  type Checked,
  LIBRARY_LIMITS,
  type LibraryLimits,
  type RawRow,
  type Restored,
} from '@crow-ladder/contract';
import {
  backupRefused,
  backupTrouble,
  readBackupCard,
  readBackupChart,
  readBackupHead,
  readBackupReview,
  readBackupRound,
  readBackupRow,
} from '@crow-ladder/contract/schemas';
import { type Knex } from 'knex';
import { putSettings } from '../library.ts';
import { indexRows, type ReadRow } from '../lists.ts';
import { roundRow } from '../practice.ts';
import { cardRow, remember, reviewRow } from '../recall.ts';
import { columns, soundRow, toChart } from '../rows.ts';
import { type ChartRow } from '../tables.ts';
import { transaction } from '../transaction.ts';
import { iso } from '../world.ts';
import { readerOf } from './reader.ts';

/** What a backup brings, all of it read and found right. */
export interface Taken extends Restored {
  readonly madeAt: string;
}

/** How much is parsed between two looks at what came out, in bytes. */
const SLICE = 16_384;
/** More fields than a backup ever had. */
const FIELDS = 20;
const WORD = {
  instruments: 'instruments',
  known: 'known shapes',
  practice: 'rounds of practice',
  cards: 'cards',
  reviews: 'answers',
};
/** How many charts are written at a time. */
const AT_A_TIME = 100;
/** The largest piece of a backup that is kept in memory; a chart is no larger, however it is written. */
const MOST = CHART_BYTES * 2;
const LISTS = ['charts', 'unreadable', 'practice', 'cards', 'reviews', 'instruments', 'known'] as const;
type List = (typeof LISTS)[number];
const SMALL = ['instruments', 'known'] as const;
type Piece = readonly [list: 'charts' | 'unreadable', at: number, json: unknown];
/** Lists whose entries go into a table as they come. */
const LONG = ['practice', 'cards', 'reviews'] as const;
type Long = (typeof LONG)[number];
type Entries = readonly (readonly [at: number, json: unknown])[];

/** A row that could not be read, whatever a file says of it: what is the library's own in it is put right. */
function rowOf(raw: RawRow): ChartRow {
  const text = (name: string): string => String(raw[name] ?? '');
  return soundRow({
    id: text('id'),
    name: text('name'),
    tags: text('tags'),
    notes: text('notes'),
    state: text('state'),
    revision: Number(raw['revision']),
    created_at: text('created_at'),
    updated_at: text('updated_at'),
  });
}
const chartRow = (c: Chart): ChartRow => ({
  id: c.id,
  ...columns(c),
  revision: c.revision,
  created_at: c.createdAt,
  updated_at: c.updatedAt,
});

/** Takes a backup in as it comes, in pieces of any size, into an empty library: all of it, or the reason why not. */
export function intake(db: Knex, limits: LibraryLimits = LIBRARY_LIMITS) {
  const tooMany = (list: keyof typeof WORD): Checked<never> =>
    backupRefused(`A library holds at most ${limits[list]} ${WORD[list]}.`, list);
  const lists: Readonly<Record<(typeof SMALL)[number], unknown[]>> = { instruments: [], known: [] };
  const head = new Map<string, unknown>();
  let pieces: Piece[] = [];
  let entries: Record<Long, [at: number, json: unknown][]> = { practice: [], cards: [], reviews: [] };
  let charts = 0;
  let since = 0;
  let refused: ApiError | null = null;
  const refuse = (checked: Checked<unknown> | null): void => {
    if (checked && !checked.ok) refused ??= checked.error;
  };
  const paths = ['$', '$.*', ...LISTS.map((list) => `$.${list}.*`)];
  const reader = readerOf(paths, ({ value, key, parent, stack }) => {
    since = 0;
    const list = stack[1]?.key as List | undefined;
    if (stack.length === 0) return refuse(backupTrouble({ format: null, ...Object.fromEntries(head) }));
    if (list === undefined) {
      head.set(String(key), value);
      if (head.size > FIELDS) refuse(backupRefused('This file is not a backup of Crow Ladder.'));
      return refuse(backupTrouble(Object.fromEntries(head)));
    }
    if (!Array.isArray(parent)) return;
    // What was taken is not kept in the list as well.
    parent.length = 0;
    if (list === 'charts' || list === 'unreadable') {
      if (++charts > limits.charts)
        refuse(backupRefused(`A library holds at most ${limits.charts} charts.`, list));
      pieces.push([list, key as number, value]);
    } else if (list === 'practice' || list === 'cards' || list === 'reviews') {
      if ((key as number) >= limits[list]) refuse(tooMany(list));
      entries[list].push([key as number, value]);
    } else if (lists[list].push(value) > limits[list]) refuse(tooMany(list));
  });

  /** Reads what came; null from the first on that cannot be. */
  const readPiece = ([list, at, json]: Piece): ReadRow | null => {
    const read = list === 'charts' ? readBackupChart(json, at) : readBackupRow(json, at);
    refuse(read);
    if (refused || !read.ok) return null;
    if (list === 'charts') return { row: chartRow(read.value as Chart), chart: read as Checked<Chart> };
    const row = rowOf(read.value as RawRow);
    return { row, chart: toChart(row) };
  };
  const keep = async (some: readonly ReadRow[], on: Knex.Transaction): Promise<void> => {
    const rows = some.map(({ row }) => row);
    const made = await on('charts').insert(rows).onConflict('id').ignore().returning('id');
    if (made.length === rows.length) return indexRows(some, on);
    const ids = new Set((made as { id: string }[]).map(({ id }) => id));
    const twice = rows.find(({ id }) => !ids.delete(id))!.id;
    refuse(backupRefused(`Two charts in this backup have the id ${twice}.`, 'charts'));
  };

  const keepRows = async (list: Long, rows: readonly { readonly id: string }[]): Promise<void> => {
    if (refused || !rows.length) return;
    const made = await db(list as 'practice')
      .insert(rows as never)
      .onConflict('id')
      .ignore()
      .returning('id');
    if (made.length < rows.length)
      refuse(backupRefused(`Two ${WORD[list]} in this backup have the same id.`, list));
  };
  const readAll = <T>(some: Entries, read: (json: unknown, at: number) => Checked<T>): readonly T[] => {
    const all = some.map(([at, json]) => read(json, at));
    all.forEach(refuse);
    return all.flatMap((it) => (it.ok ? [it.value] : []));
  };
  const KEEP: Readonly<Record<Long, (some: Entries) => Promise<void>>> = {
    practice: (some) => keepRows('practice', readAll(some, readBackupRound).map(roundRow)),
    cards: (some) => keepRows('cards', readAll(some, readBackupCard).map(cardRow)),
    reviews: async (some) => {
      const reviews = readAll(some, readBackupReview);
      const cards = await db('cards')
        .whereIn('id', [...new Set(reviews.map(({ cardId }) => cardId))])
        .select('id', 'kind');
      const kinds = new Map(cards.map(({ id, kind }) => [id, kind]));
      const lost = reviews.find(({ cardId }) => !kinds.has(cardId));
      if (lost)
        return refuse(backupRefused(`An answer in this backup is to a card that is not in it.`, 'reviews'));
      await keepRows(
        'reviews',
        reviews.map((it) => reviewRow(it, kinds.get(it.cardId)!)),
      );
    },
  };

  return {
    /** Takes more of the file; says what is wrong with it as soon as it is known. */
    take: async (
      bytes: Uint8Array,
    ): Promise<{ readonly charts: number; readonly error: ApiError | null }> => {
      for (let at = 0; at < bytes.length && !refused; at += SLICE) {
        const slice = bytes.subarray(at, at + SLICE);
        if (!reader.write(slice)) refuse(UNREADABLE);
        since += slice.length;
        if (since > MOST)
          refuse(
            backupRefused(
              `A piece of this backup is larger than ${MOST / 1000} kB, more than a chart can be.`,
            ),
          );
      }
      const came = pieces;
      pieces = [];
      for (let at = 0; at < came.length && !refused; at += AT_A_TIME) {
        const some = came.slice(at, at + AT_A_TIME).flatMap((piece) => readPiece(piece) ?? []);
        if (!refused) await transaction(db, (trx) => keep(some, trx));
      }
      const kept = entries;
      entries = { practice: [], cards: [], reviews: [] };
      for (const list of LONG)
        for (let at = 0; at < kept[list].length && !refused; at += AT_A_TIME)
          await KEEP[list](kept[list].slice(at, at + AT_A_TIME));
      return { charts, error: refused };
    },
    /** The file has ended. */
    end: async (): Promise<Checked<Taken>> => {
      if (!reader.isEnded()) refuse(UNREADABLE);
      if (refused) return { ok: false, error: refused };
      for (const list of SMALL) if (Array.isArray(head.get(list))) head.set(list, lists[list]);
      const read = readBackupHead(Object.fromEntries(head));
      if (!read.ok) return read;
      const { instruments, settings, known, madeAt } = read.value;
      await transaction(db, async (trx) => {
        for (const { id, instrument, updatedAt } of instruments)
          await trx('instruments').insert({
            id,
            instrument: JSON.stringify(instrument),
            updated_at: updatedAt,
          });
        const answered = await trx('reviews').distinct('card_id');
        for (const { card_id: id } of answered) await remember(id, trx);
        await putSettings(settings, trx);
        const since = iso(Date.now());
        for (const shape of new Set(known)) await trx('known_shapes').insert({ shape, since });
      });
      return { ok: true, value: { charts, instruments: instruments.length, madeAt } };
    },
  };
}

const UNREADABLE = backupRefused('This file is cut short or is not JSON.', undefined, 'bad-json');

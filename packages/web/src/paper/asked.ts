import { type ChartDraft, type Settings } from '@crow-ladder/contract';
import { type PaperId } from '@crow-ladder/picture';
import { type OnPaper } from './onPaper.ts';

/** What can be printed. */
export const BOOKS = [
  {
    id: 'position',
    name: 'this position',
    note: 'on a sheet of its own: neck, fingers, staff and tablature',
  },
  { id: 'practice', name: 'the practice sheet', note: 'what is practised, with lines to keep a record on' },
  { id: 'ladder', name: 'the whole ladder', note: 'every position of this chart' },
  { id: 'keys', name: 'this position in all keys', note: 'near the nut and an octave up' },
  { id: 'ladders', name: 'the whole ladder in all keys', note: 'each shape once in each key' },
  { id: 'charts', name: 'these charts', note: 'the position in front of each' },
] as const;
export type BookId = (typeof BOOKS)[number]['id'];
/** Whether it is one sheet about one thing, not a book of diagrams. */
export const isSheet = (what: BookId): what is OnPaper['sheet'] => what === 'position' || what === 'practice';

/** How many diagrams stand on a page. */
export const PER_PAGE = [
  { id: '1', name: 'one to a page' },
  { id: '2', name: 'two to a page' },
  { id: '4', name: 'four to a page' },
  { id: '6', name: 'six to a page' },
  { id: '12', name: 'twelve to a page' },
] as const;
export type PerPage = (typeof PER_PAGE)[number]['id'];
/** What the marks of a diagram say. */
export const BOOK_LABELS = [
  { id: 'degree', name: 'degrees' },
  { id: 'finger', name: 'fingers' },
  { id: 'note', name: 'notes' },
] as const;
export type BookLabels = (typeof BOOK_LABELS)[number]['id'];
export const BOOK_NECKS = [
  { id: 'lying', name: 'lying' },
  { id: 'upright', name: 'upright' },
] as const;

/** A book that is asked for. */
export interface BookAsked {
  readonly what: BookId;
  readonly paper: PaperId;
  readonly perPage: PerPage;
  readonly labels: BookLabels;
  readonly neck: (typeof BOOK_NECKS)[number]['id'];
  /** Whether the player's own words stand in it. */
  readonly words: boolean;
  /** Whether tablature stands with each diagram. */
  readonly tab: boolean;
}
export const BOOK_AT_FIRST: BookAsked = {
  what: 'ladder',
  paper: 'a4',
  perPage: '6',
  labels: 'degree',
  neck: 'lying',
  words: true,
  tab: false,
};

/** What a book is made of. */
export interface BookOf {
  /** The chart that is open, or all that are asked for: a book of them. */
  readonly charts: readonly ChartDraft[];
  readonly settings: Settings;
  /** What the task in front puts on a sheet; null where it has none of its own. */
  readonly onPaper: OnPaper | null;
}

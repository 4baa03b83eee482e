import { type KeptRound } from './practice.ts';
import { type Grade } from './recall/card.ts';

/** Which part of the log is asked for; what is empty is any. */
export interface LogQuery {
  /** The first and the last day. */
  readonly from: string;
  readonly to: string;
  /** The id of a chart. */
  readonly chart: string;
  /** The kind of a drill, or `RECALLED`. */
  readonly what: string;
  /** A tag of charts as they are tagged now. */
  readonly tag: string;
}
/** What was recalled, in place of a drill. */
export const RECALLED = 'recall';
export const ALL_OF_LOG: LogQuery = { from: '', to: '', chart: '', what: '', tag: '' };

/** A card that was answered on a day: how often, and the lowest grade of it. */
export interface AnsweredCard {
  readonly id: string;
  readonly name: string;
  readonly answers: number;
  readonly grade: Grade;
}
/** What was recalled on a day. */
export interface RecalledDay {
  readonly answers: number;
  readonly known: number;
  readonly ms: number;
  /** Those that were known least, first. */
  readonly cards: readonly AnsweredCard[];
}
/** A day of the log, what was played last first. */
export interface LogDay {
  readonly day: string;
  readonly rounds: readonly KeptRound[];
  /** Rounds of the day that are not given. */
  readonly more: number;
  readonly recalled: RecalledDay | null;
}
export interface LogPage {
  /** Days with anything on them, the last one first. */
  readonly days: readonly LogDay[];
  /** Whether there are earlier ones. */
  readonly earlier: boolean;
}
/** Days of a page, fewer where they have enough rounds; rounds of a day and cards of its recall that are given. */
export const LOG_PAGE = { days: 7, enough: 60, rounds: 300, cards: 12 } as const;

/** How long was played and recalled on a day, and how. */
export interface DaySum {
  readonly day: string;
  readonly playedMs: number;
  readonly rounds: number;
  readonly clean: number;
  readonly recalledMs: number;
  readonly answers: number;
  readonly known: number;
}
/** How something went: rounds of which something was said and answers, and how many were not right yet. */
export interface Went {
  readonly of: number;
  readonly not: number;
}
export interface KeyWent extends Went {
  readonly root: string;
  readonly scale: string;
}
/** Positions of a scale that begin on the same of its degrees. */
export interface PositionWent extends Went {
  readonly scale: string;
  readonly start: number;
}
export interface StringWent extends Went {
  readonly string: number;
}
/** What a part of the log comes to. */
export interface LogSum {
  /** Days with anything on them, in order. */
  readonly days: readonly DaySum[];
  /** Those that went worst, first; with fewer than `WEAK.of` nothing is said. Strings are known by answers alone. */
  readonly keys: readonly KeyWent[];
  readonly positions: readonly PositionWent[];
  readonly strings: readonly StringWent[];
}
export const WEAK = { of: 4, shown: 6 } as const;
/** The longest that an answer counts as time of practice, in ms: a page that was left open practises nothing. */
export const ANSWER_COUNTS_MS = 120_000;

/** The fastest tempo of a day that was clean, null where none was, and the fastest that was tried; in quarter notes a minute. */
export interface TempoDay {
  readonly day: string;
  readonly clean: number | null;
  readonly tried: number;
}

/** What the log can be narrowed to. */
export interface LogParts {
  readonly charts: readonly { readonly id: string; readonly name: string }[];
  readonly drills: readonly string[];
  readonly tags: readonly string[];
}

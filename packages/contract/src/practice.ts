import { dayAt } from './recall/day.ts';

/** What a round was played on, as it stood then. */
export interface PlayedOn {
  /** The chart's id, and its name; empty where it had none. */
  readonly chart: string;
  readonly chartName: string;
  /** Plain note name of the root, "F#", and id of the scale. */
  readonly root: string;
  readonly scale: string;
  /** Index of the scale's degree that the position in front begins on. */
  readonly start: number;
  /** The words of an address that show it as it stood. */
  readonly back: string;
}

/** A round of practice as the player judged it: what was played, how fast, and whether it was clean. */
export interface RoundDraft {
  /** The drill and its options, as a word of the address. */
  readonly drill: string;
  /** What it was played on, the same in every key. */
  readonly shape: string;
  /** What both are called. */
  readonly name: string;
  /** Notes a beat; null where a log that was kept elsewhere does not tell. */
  readonly perBeat: number | null;
  /** Quarter notes a minute; null where a log that was kept elsewhere does not tell. */
  readonly tempo: number | null;
  /** Null where nothing was said of it. */
  readonly clean: boolean | null;
  /** How long it was played, in ms, with what was played before it of which nothing was said. */
  readonly ms: number;
  /** Null where a log that was kept elsewhere, or before this was written down, does not tell. */
  readonly on: PlayedOn | null;
  /** What the player noted about it. */
  readonly note: string;
}
export interface KeptRound extends RoundDraft {
  readonly id: string;
  /** When it was played, and the day that it counts for where the player is. */
  readonly at: string;
  readonly day: string;
}

/** The drill of what was played elsewhere. */
export const ELSEWHERE = 'elsewhere';

/** A round as it is kept today: one of before there was a day, a length, a place and a note gets those that say the least. */
export function roundNow(json: unknown): unknown {
  if (typeof json !== 'object' || json === null) return json;
  const told = (json as { at?: unknown }).at;
  const at = typeof told === 'string' ? Date.parse(told) : NaN;
  // A moment that cannot be read is refused for itself.
  const day = dayAt(Number.isNaN(at) ? 0 : at, 0);
  return { day, ms: 0, on: null, note: '', ...json };
}

/** Whose rounds are asked for. */
export type RoundQuery = Pick<RoundDraft, 'drill' | 'shape' | 'perBeat'>;

/** What the log holds of something that was practised. */
export interface Practised {
  /** The fastest tempo that was clean; null where none was. */
  readonly best: number | null;
  /** The latest rounds, the last one first. */
  readonly rounds: readonly KeptRound[];
}

/** Something that was practised, in the list of it all. */
export interface PractisedThing extends RoundQuery, Pick<Practised, 'best'> {
  readonly name: string;
  readonly rounds: number;
  readonly last: string;
  /** What its last round was played on. */
  readonly on: PlayedOn | null;
}

/** Rounds of one thing, and things in the list, that are shown: the latest. */
export const SHOWN = { rounds: 200, things: 100 } as const;
/** The longest words of a round, and the longest time of one, in ms. */
export const ROUND_LIMITS = {
  drill: 200,
  shape: 400,
  name: 200,
  back: 4000,
  note: 500,
  ms: 6 * 3_600_000,
  atATime: 50,
} as const;
/** Minutes a week that can be a goal, and how many tempos can. */
export const GOALS = { minutes: [5, 5000], tempos: 30 } as const;

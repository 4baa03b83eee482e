/** A round of practice as the player judged it: what was played, how fast, and whether it was clean. */
export interface RoundDraft {
  /** The drill and its options, as a word of the address. */
  readonly drill: string;
  /** What it was played on, the same in every key. */
  readonly shape: string;
  /** What both are called. */
  readonly name: string;
  readonly perBeat: number;
  /** Quarter notes a minute. */
  readonly tempo: number;
  readonly clean: boolean;
}
export interface KeptRound extends RoundDraft {
  readonly id: string;
  /** When it was played. */
  readonly at: string;
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
}

/** Rounds of one thing, and things in the list, that are shown: the latest. */
export const SHOWN = { rounds: 200, things: 100 } as const;
/** The longest words of a round. */
export const ROUND_LIMITS = { drill: 200, shape: 400, name: 200 } as const;

import { type ChartDraft, type ChartState } from '@crow-ladder/contract';
import { type Entry } from './outbox.ts';

/** Parts of a draft, as they are on one side of a change: what a player wrote, and parts of the state by name. */
export interface Patch {
  readonly words?: Partial<Pick<ChartDraft, 'name' | 'tags' | 'notes'>>;
  readonly state?: Partial<ChartState>;
}
/** A change of a draft, as it is taken back and made again. */
export interface Step {
  readonly back: Patch;
  readonly on: Patch;
}

/** What a tab made of a chart. */
export interface Work {
  readonly id: string;
  readonly tab: string;
  /** The library that it belongs to; null where the server was not heard of yet. */
  readonly library: string | null;
  /** The revision that it was made from; 0 while the server has none. */
  readonly revision: number;
  readonly draft: ChartDraft;
  /** Whether the server has all of it: it is kept for the way back alone. */
  readonly kept: boolean;
  /** When it was changed last, in ms since the beginning of 1970. */
  readonly at: number;
  /** What was sent and may have been saved unheard of: what drafts of it hold, in a word each. */
  readonly sent: readonly string[];
  /** How many of its steps lead back; the others lead on. */
  readonly back: number;
  /** The saved chart in whose address it came. */
  readonly of: string | null;
}
export type WorkKey = Pick<Work, 'id' | 'tab'>;
/** Work with its way back and on. */
export interface Resumed {
  readonly work: Work;
  readonly steps: readonly Step[];
}

/** What becomes of the steps of a chart as work is kept. */
export interface Stepping {
  readonly at: number;
  readonly step: Step;
  /** Whether steps lead on from here that this one ends. */
  readonly ends: boolean;
}

/**
 * Where a page keeps what it does, in this browser, before it is called anything else. Whatever is put is on its way before the
 * call returns, so that a page that is closed in the same moment loses nothing; it rejects what cannot be kept.
 */
export interface Journal {
  /** Resolves once it is open, to whether it can be written. */
  readonly opened: Promise<boolean>;
  readonly keep: (work: Work, stepping?: Stepping | null) => Promise<void>;
  readonly drop: (key: WorkKey) => Promise<void>;
  readonly works: () => Promise<readonly Work[]>;
  /** The work of another tab goes on under this one. Null where it is not there any more. */
  readonly adopt: (key: WorkKey, tab: string) => Promise<Resumed | null>;
  /** What is to be sent; one under the same key takes the place of the other. */
  readonly post: (entry: Entry) => Promise<void>;
  /** In the order in which they were made. */
  readonly entries: () => Promise<readonly Entry[]>;
  /** Takes away what was sent, unless another one took its place meanwhile. */
  readonly sent: (entry: Entry) => Promise<void>;
}

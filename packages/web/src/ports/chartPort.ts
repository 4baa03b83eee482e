import { type Chart, type ChartChange } from '@crow-ladder/contract';

/** How a change goes out. */
export interface Sending {
  /** The page may be gone before the answer comes. */
  readonly leaving?: boolean;
}

/** What keeps charts: the server, or what stands in for it. What it cannot do it rejects with a `Trouble`. */
export interface ChartPort {
  readonly get: (id: string) => Promise<Chart>;
  /**
   * Changes a chart that still has the revision of the change, or makes it where that is 0. Asked for again, the same change is made
   * once.
   */
  readonly put: (id: string, change: ChartChange, sending?: Sending) => Promise<Chart>;
  /** Whether it answers again. */
  readonly isThere: () => Promise<boolean>;
}

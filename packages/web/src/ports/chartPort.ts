import { type Chart, type ChartChange, type ChartDraft } from '@crow-ladder/contract';

/** How a change goes out. */
export interface Sending {
  /** Under it the change is made once, however often it is asked for. */
  readonly key?: string;
  /** The page may be gone before the answer comes. */
  readonly leaving?: boolean;
}

/** What keeps charts: the server, or what stands in for it. What it cannot do it rejects with a `Trouble`. */
export interface ChartPort {
  readonly create: (draft: ChartDraft, sending?: Sending) => Promise<Chart>;
  /** Changes a chart that still has the revision of the change. */
  readonly change: (id: string, change: ChartChange, sending?: Sending) => Promise<Chart>;
  /** Whether it answers again. */
  readonly isThere: () => Promise<boolean>;
}

import { type ChartState } from './document/state.ts';

/** What a player types about a chart. */
export interface ChartDraft {
  readonly name: string;
  readonly tags: readonly string[];
  /** Plain text. */
  readonly notes: string;
  readonly state: ChartState;
}

/** A chart as kept. `revision` counts its changes, so that two tabs cannot overwrite each other unseen. */
export interface Chart extends ChartDraft {
  readonly id: string;
  readonly revision: number;
  readonly createdAt: string;
  readonly updatedAt: string;
}

/** A row of the library that cannot be read: nothing of it is lost, and nothing else suffers. */
export interface Unreadable {
  readonly id: string;
  /** As far as it has one. */
  readonly name: string;
  readonly reason: string;
  readonly revision: number;
}

/** How a chart is looked at: kept with it without a revision, so that the last look wins and no two are in conflict over it. */
export type ChartLook = Pick<ChartState, 'front'>;

/** A change to a chart: the draft, and the revision that it was made from; 0 makes the chart. */
export interface ChartChange extends ChartDraft {
  readonly revision: number;
}

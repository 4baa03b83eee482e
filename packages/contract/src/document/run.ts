import { type Place } from '@crow-ladder/core';
import { type ClimbSpec } from '@crow-ladder/core/climbs';
import { type Direction, type Strike } from '@crow-ladder/core/run';
import { type PlanAsked } from './plan.ts';

/** A part of a chart that is kept as it is: this application shows none of it, and loses none of it. */
export type Part = Readonly<Record<string, unknown>>;

/** What is kept with every climb: its name, and the root that it was kept with, so that it moves with the key. */
interface Named {
  readonly name: string;
  readonly at: Place;
  readonly root: string;
}
/** A climb kept with the chart. */
export interface KeptClimb extends Named {
  readonly type: 'climb';
  readonly climb: ClimbSpec;
  readonly direction: Direction;
  readonly topTwice: boolean;
  readonly touch: Strike;
  /** The position in front: its first degree and its lowest fret. */
  readonly start: number;
  readonly low: number;
}
/** A planned climb kept with the chart: what was asked for, and which of the ways. */
export interface KeptPlan extends Named {
  readonly type: 'plan';
  readonly plan: PlanAsked;
  readonly pick: number;
}
export type KeptRun = KeptClimb | KeptPlan;
/** What stood among the runs and can be read as none. */
export interface UnreadRun {
  readonly type: 'unread';
  readonly was: Part;
}

/** The longest name of a kept climb. */
export const RUN_NAME = 60;

import { type ThunkDispatch, type UnknownAction } from '@reduxjs/toolkit';
import { type ChartPort } from './chartPort.ts';
import { type Clock } from './clock.ts';
import { type Journal } from './journal.ts';
import { type Keeping } from './keeping.ts';
import { type Channel, type Locks } from './sharing.ts';

/** Where requests go. */
export interface Network {
  /** What every address begins with. */
  readonly base: string;
  readonly fetch: typeof fetch;
}

/** Everything of the world that the page's machines work with; it is given where the application is put together. */
export interface Outside {
  readonly clock: Clock;
  readonly network: Network;
  readonly keeping: Keeping;
  readonly journal: Journal;
  readonly locks: Locks;
  readonly channel: Channel;
  /** What this page is known by among the tabs of its browser: another one each time that it is loaded. */
  readonly tab: string;
  /** What keeps the charts, for who sends actions. */
  readonly charts: (send: ThunkDispatch<unknown, unknown, UnknownAction>) => ChartPort;
}

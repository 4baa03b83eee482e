import { type Instrument } from '@crow-ladder/core';
import { type Settings } from './settings.ts';

/** A player's own instrument. `revision` counts its changes. */
export interface KeptInstrument {
  readonly id: string;
  readonly instrument: Instrument;
  readonly revision: number;
  readonly updatedAt: string;
}

/** An instrument in the list, with the number of charts that are played on it. */
export interface UsedInstrument extends KeptInstrument {
  readonly charts: number;
}

/** A change of an instrument: what it becomes, and the revision that it was made from. */
export interface InstrumentChange {
  readonly instrument: Instrument;
  readonly revision: number;
}

/** A change of some settings: what they become, and what they were where it was made. */
export interface SettingsPatch {
  readonly from: Partial<Settings>;
  readonly to: Partial<Settings>;
}

/** What can be deleted, and brought back from the bin. */
export type Kept = 'chart' | 'instrument';

/** Days that the bin holds what was deleted. */
export const BIN_DAYS = 30;
/** How much of it is listed: what was deleted last. */
export const BIN_SHOWN = 300;

/** What is left of the demo as it was loaded: what the player changed is the player's own. */
export interface Demo {
  readonly charts: number;
  readonly instruments: number;
}

/** Something in the bin. */
export interface Binned {
  readonly kind: Kept;
  readonly id: string;
  readonly name: string;
  readonly deletedAt: string;
}

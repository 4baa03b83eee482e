import { type Instrument } from '@crow-ladder/core';

/** A player's own instrument. */
export interface KeptInstrument {
  readonly id: string;
  readonly instrument: Instrument;
  readonly updatedAt: string;
}

/** What can be deleted, and brought back from the bin. */
export type Kept = 'chart' | 'instrument';

/** Days that the bin holds what was deleted. */
export const BIN_DAYS = 30;

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

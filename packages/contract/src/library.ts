import { type Instrument } from '@crow-ladder/core';

/** A player's own instrument. */
export interface KeptInstrument {
  readonly id: string;
  readonly instrument: Instrument;
  readonly updatedAt: string;
}

import {
  type ChartLook,
  type KeptCard,
  type KeptRound,
  type Review,
  type SettingsPatch,
} from '@crow-ladder/contract';

/** Something of the library that is to be deleted, as it was seen. */
export interface Seen {
  readonly kind: 'chart' | 'instrument';
  readonly id: string;
  readonly name: string;
  readonly revision: number;
}

/** What is to be sent to the server, beside charts. Sent again, each comes to the same. */
export type Posted =
  | { readonly kind: 'settings'; readonly patch: SettingsPatch }
  | { readonly kind: 'known'; readonly shape: string; readonly known: boolean }
  | { readonly kind: 'round'; readonly round: KeptRound }
  | { readonly kind: 'rounds'; readonly rounds: readonly KeptRound[] }
  | { readonly kind: 'roundNote'; readonly id: string; readonly note: string }
  | { readonly kind: 'roundOut'; readonly id: string }
  | { readonly kind: 'cards'; readonly cards: readonly KeptCard[] }
  | { readonly kind: 'cardRests'; readonly id: string; readonly rested: boolean }
  | { readonly kind: 'cardOut'; readonly id: string }
  | { readonly kind: 'review'; readonly review: Review }
  | { readonly kind: 'reviewOut'; readonly id: string }
  | { readonly kind: 'delete'; readonly seen: Seen; readonly more: string }
  | { readonly kind: 'look'; readonly id: string; readonly look: ChartLook };

/** Something that waits to be sent. */
export interface Entry {
  readonly key: string;
  /** When it was made, in ms since the beginning of 1970, and the how manyth in its tab. */
  readonly at: number;
  readonly nth: number;
  readonly tab: string;
  /** The library that it belongs to. */
  readonly library: string | null;
  readonly what: Posted;
}

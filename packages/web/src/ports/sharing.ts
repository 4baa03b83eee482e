import { type Posted } from './outbox.ts';

/** What tabs of one browser take turns by. */
export interface Locks {
  /** Resolves once the name is held by this page, to what lets it go. */
  readonly hold: (name: string) => Promise<() => void>;
  /** The names that are held now, by whatever tab. */
  readonly held: () => Promise<ReadonlySet<string>>;
}

/** What one tab tells the others. */
export type Message =
  | { readonly is: 'saved'; readonly id: string }
  | { readonly is: 'sent'; readonly kind: Posted['kind'] }
  | { readonly is: 'gone' };
/** How tabs of one browser tell each other. */
export interface Channel {
  readonly tell: (message: Message) => void;
  readonly listen: (heard: (message: Message) => void) => void;
}

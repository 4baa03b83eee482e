/** How a backup that is brought back stands: read and checked first, then put in place of the library all at once. */
export type Restore =
  | { readonly is: 'reading'; readonly bytes: number; readonly charts: number }
  | ({ readonly is: 'ready'; readonly madeAt: string } & Restored)
  | ({ readonly is: 'done' } & Restored);

/** What a backup brings. */
export interface Restored {
  readonly charts: number;
  readonly instruments: number;
}

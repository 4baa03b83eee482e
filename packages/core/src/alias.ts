/** What can be renamed although its id stands in charts, addresses and backups. */
export type Aliased = 'scale' | 'tuning' | 'layout' | 'climb' | 'drill' | 'move';

/** Ids once shipped, and what they are called now: whoever renames an entry of a table adds a line here. */
export const ALIASES: Readonly<Record<Aliased, Map<string, string>>> = {
  scale: new Map(),
  tuning: new Map(),
  layout: new Map(),
  climb: new Map(),
  drill: new Map(),
  move: new Map(),
};

/**
 * The id of today for an id of any time.
 *
 * @example aliasOf('scale', 'dorian') // "dorian"
 */
export function aliasOf(what: Aliased, id: string): string {
  let now = id;
  for (let left = ALIASES[what].size; left > 0 && ALIASES[what].has(now); left--)
    now = ALIASES[what].get(now)!;
  return now;
}

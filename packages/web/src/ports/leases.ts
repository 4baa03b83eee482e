import { type Database } from './browserJournal.ts';
import { type Clock } from './clock.ts';
import { type Locks } from './sharing.ts';

/**
 * How long a name stays held by a tab that no longer says so, in ms: tabs in the background are woken once a minute. How often it is
 * said, and how often a name that another tab holds is asked for.
 */
const LEASE_MS = { most: 150_000, renew: 30_000, ask: 1000 };

/** Turns by leases in the journal, where a page over a plain address in the room has no locks. */
export function leases(opening: Promise<Database>, clock: Clock, owner: string): Locks {
  const takes = async (name: string): Promise<boolean> => {
    const at = (await opening).transaction('leases', 'readwrite');
    const is = await at.store.get(name);
    const isFree = !is || is.owner === owner || is.until <= clock.now();
    if (isFree) await at.store.put({ name, owner, until: clock.now() + LEASE_MS.most });
    await at.done;
    return isFree;
  };
  return {
    hold: async (name) => {
      while (!(await takes(name))) await new Promise<void>((again) => clock.after(LEASE_MS.ask, again));
      let callOff: () => void = () => undefined;
      const renew = (): void => {
        callOff = clock.after(LEASE_MS.renew, () => {
          renew();
          takes(name).catch(() => undefined);
        });
      };
      renew();
      return () => {
        callOff();
        opening.then((db) => db.delete('leases', name)).catch(() => undefined);
      };
    },
    held: async () =>
      new Set(
        (await (await opening).getAll('leases')).flatMap((l) => (l.until > clock.now() ? [l.name] : [])),
      ),
  };
}

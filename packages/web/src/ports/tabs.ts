import { type Clock } from './clock.ts';
import { type Database } from './browserJournal.ts';
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

const NAME = 'crow-ladder';
export const browserChannel = (): Channel => {
  const channel = new BroadcastChannel(NAME);
  return {
    tell: (message) => channel.postMessage(message),
    listen: (heard) => channel.addEventListener('message', ({ data }: MessageEvent<Message>) => heard(data)),
  };
};

const webLocks = (locks: LockManager): Locks => ({
  hold: (name) =>
    new Promise((holds, fails) => {
      locks.request(name, () => new Promise<void>((done) => holds(() => done()))).catch(fails);
    }),
  held: async () => new Set(((await locks.query()).held ?? []).map(({ name }) => name!)),
});

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

/** The locks of a browser, or leases where it has none. */
export const browserLocks = (opening: Promise<Database>, clock: Clock, owner: string): Locks =>
  'locks' in navigator ? webLocks(navigator.locks) : leases(opening, clock, owner);

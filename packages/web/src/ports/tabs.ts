import { type Clock } from './clock.ts';
import { type Database } from './browserJournal.ts';
import { type Channel, type Locks, type Message } from './sharing.ts';

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

/** The locks of a browser, or leases in its journal where it has none, as a page over a plain address in the room. */
export function browserLocks(opening: Promise<Database>, clock: Clock, owner: string): Locks {
  if ('locks' in navigator) return webLocks(navigator.locks);
  const loading = import('./leases.ts').then((m) => m.leases(opening, clock, owner));
  return {
    hold: async (name) => (await loading).hold(name),
    held: async () => (await loading).held(),
  };
}

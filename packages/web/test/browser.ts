import { type Journal, type Step, type Work, type WorkKey } from '../src/ports/journal.ts';
import { type Entry } from '../src/ports/outbox.ts';
import { type Channel, type Locks, type Message } from '../src/ports/sharing.ts';

const keyOf = ({ id, tab }: WorkKey): string => `${id} ${tab}`;
const copied = <T>(it: T): T => structuredClone(it);

/** What the tabs of one browser share, in the memory of a test: what is put is there before the call returns, as in a browser that is open. */
export function handBrowser() {
  const works = new Map<string, Work>();
  const steps = new Map<string, Map<number, Step>>();
  const entries = new Map<string, Entry>();
  const holders = new Map<string, string>();
  const waiting: { readonly name: string; readonly tab: string; readonly holds: () => void }[] = [];
  const listeners = new Map<string, (message: Message) => void>();
  let isFull = false;
  const refuse = (): Promise<never> => Promise.reject(new DOMException('full', 'QuotaExceededError'));

  const free = (name: string): void => {
    holders.delete(name);
    const at = waiting.findIndex((w) => w.name === name);
    const [next] = at < 0 ? [] : waiting.splice(at, 1);
    if (!next) return;
    holders.set(name, next.tab);
    next.holds();
  };
  const locksOf = (tab: string): Locks => ({
    hold: (name) =>
      new Promise((holds) => {
        const letGo = (): void => {
          if (holders.get(name) === tab) free(name);
        };
        if (holders.has(name)) waiting.push({ name, tab, holds: () => holds(letGo) });
        else {
          holders.set(name, tab);
          holds(letGo);
        }
      }),
    held: () => Promise.resolve(new Set(holders.keys())),
  });
  const channelOf = (tab: string): Channel => ({
    tell: (message) => {
      for (const [other, heard] of listeners) if (other !== tab) queueMicrotask(() => heard(message));
    },
    listen: (heard) => void listeners.set(tab, heard),
  });
  const journal: Journal = {
    opened: Promise.resolve(true),
    keep: (work, stepping) => {
      if (isFull) return refuse();
      const key = keyOf(work);
      works.set(key, copied(work));
      if (stepping) {
        const mine = steps.get(key) ?? new Map<number, Step>();
        steps.set(key, mine);
        if (stepping.ends) for (const at of [...mine.keys()]) if (at >= stepping.at) mine.delete(at);
        mine.set(stepping.at, copied(stepping.step));
      }
      return Promise.resolve();
    },
    drop: (key) => {
      works.delete(keyOf(key));
      steps.delete(keyOf(key));
      return Promise.resolve();
    },
    works: () => Promise.resolve([...works.values()].map(copied)),
    adopt: (key, tab) => {
      const [from, to] = [keyOf(key), keyOf({ ...key, tab })];
      const work = works.get(from);
      if (!work) return Promise.resolve(null);
      const kept = [...(steps.get(from) ?? [])].sort(([a], [b]) => a - b);
      const all = kept.map(([, step]) => step);
      const mine = { ...work, tab, back: Math.max(0, work.back - (kept[0]?.[0] ?? 0)) };
      works.delete(from);
      steps.delete(from);
      works.set(to, mine);
      steps.set(to, new Map(all.map((step, at) => [at, step])));
      return Promise.resolve({ work: mine, steps: all });
    },
    post: (entry) => (isFull ? refuse() : Promise.resolve(void entries.set(entry.key, copied(entry)))),
    entries: () => Promise.resolve([...entries.values()].sort((a, b) => a.at - b.at || a.nth - b.nth)),
    sent: ({ key, at, nth, tab }) => {
      const is = entries.get(key);
      if (is && is.at === at && is.nth === nth && is.tab === tab) entries.delete(key);
      return Promise.resolve();
    },
  };
  return {
    journal,
    works: (): readonly Work[] => [...works.values()],
    entries: (): readonly Entry[] => [...entries.values()],
    /** From now on nothing can be kept, or again. */
    full: (is: boolean) => (isFull = is),
    /** What a tab of this browser is given. */
    tab: (tab: string) => ({ tab, journal, locks: locksOf(tab), channel: channelOf(tab) }),
    /** A tab is gone, with all that it held. */
    close: (tab: string): void => {
      listeners.delete(tab);
      for (let i = waiting.length - 1; i >= 0; i--) if (waiting[i]!.tab === tab) waiting.splice(i, 1);
      for (const [name, holder] of [...holders]) if (holder === tab) free(name);
    },
  };
}

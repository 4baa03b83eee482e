import { type DBSchema, type IDBPDatabase, openDB, unwrap } from 'idb';
import { type Journal, type Step, type Stepping, type Work } from './journal.ts';
import { type Last, type LastWords } from './lastWords.ts';
import { type Entry } from './outbox.ts';

interface Stores extends DBSchema {
  works: { key: [id: string, tab: string]; value: Work };
  steps: { key: [id: string, tab: string, at: number]; value: Step };
  outbox: { key: string; value: Entry };
  leases: { key: string; value: Lease };
}
/** A name that is held for a time. */
export interface Lease {
  readonly name: string;
  readonly owner: string;
  /** ms since the beginning of 1970. */
  readonly until: number;
}
export type Database = IDBPDatabase<Stores>;

const NAME = 'crow-ladder';
const VERSION = 1;
/** Most steps back that are kept of a chart. */
const STEPS = 200;
const RELAXED = { durability: 'relaxed' } as const;

/**
 * Opens what this browser keeps. `closed` is told where it was closed under the page, so that it can keep nothing any more: because a
 * later Crow Ladder in another tab needs it otherwise (`outdated`), or by the browser.
 */
export const openJournal = (closed: (outdated: boolean) => void): Promise<Database> =>
  openDB<Stores>(NAME, VERSION, {
    upgrade: (db) => {
      db.createObjectStore('works', { keyPath: ['id', 'tab'] });
      db.createObjectStore('steps');
      db.createObjectStore('outbox', { keyPath: 'key' });
      db.createObjectStore('leases', { keyPath: 'name' });
    },
    blocking: (_, __, event) => {
      (event.target as IDBDatabase).close();
      closed(true);
    },
    terminated: () => closed(false),
  });

const stepsFrom = (id: string, tab: string, at = 0): IDBKeyRange =>
  IDBKeyRange.bound([id, tab, at], [id, tab, Infinity]);

function putWork(at: IDBTransaction, work: Work, steppings: readonly Stepping[]): void {
  const { id, tab } = work;
  at.objectStore('works').put(work);
  for (const { at: nth, step, ends } of steppings) {
    const steps = at.objectStore('steps');
    if (ends) steps.delete(stepsFrom(id, tab, nth));
    steps.put(step, [id, tab, nth]);
    if (nth >= STEPS) steps.delete([id, tab, nth - STEPS]);
  }
}

/** Puts into the journal what a tab said last, where it is not there yet, nor anything newer. */
async function take(db: Database, { works, entries }: Last): Promise<void> {
  const at = db.transaction(['works', 'steps', 'outbox'], 'readwrite', RELAXED);
  for (const { work, steppings } of works) {
    const is = await at.objectStore('works').get([work.id, work.tab]);
    if (is && is.at > work.at) continue;
    if (!steppings) await at.objectStore('steps').delete(stepsFrom(work.id, work.tab));
    putWork(unwrap(at), steppings ? work : { ...work, back: 0 }, steppings ?? []);
  }
  for (const entry of entries) {
    const is = await at.objectStore('outbox').get(entry.key);
    if (!is || is.at <= entry.at) await at.objectStore('outbox').put(entry);
  }
  await at.done;
}

/**
 * The journal in a browser. Before it is open, and where it cannot be, nothing can be kept. It counts as open once `alive` says to the
 * other tabs that this one is there; `persist` is asked once there is something to lose.
 */
export function browserJournal(
  opening: Promise<Database>,
  alive: Promise<unknown>,
  last: LastWords,
  persist: () => void = () => undefined,
): Journal {
  let db: Database | null = null;
  let isKeeping = false;
  const opened = opening
    .then(async (it) => {
      await alive;
      db = it;
      return true;
    })
    .catch(() => false);
  const ready = (): Database => {
    if (db) return db;
    throw new Error('Nothing can be kept in this browser.');
  };
  /** Takes in what other tabs said last; what cannot be kept now stays said. */
  const hear = async (): Promise<void> => {
    for (const { last: is, done } of last.said()) await take(ready(), is).then(done, () => undefined);
  };
  return {
    opened,
    // By the browser's own calls: this is done at every change, before anything of it is drawn.
    keep: (work, stepping = null) => {
      const kept = new Promise<void>((done, failed) => {
        const at = unwrap(ready()).transaction(
          stepping ? ['works', 'steps'] : ['works'],
          'readwrite',
          RELAXED,
        );
        if (!isKeeping) persist();
        isKeeping = true;
        putWork(at, work, stepping ? [stepping] : []);
        at.oncomplete = () => done();
        at.onabort = () => failed(at.error ?? new Error('Nothing was kept.'));
        // Said at once, it is not called off where the page is gone before the puts are answered.
        at.commit();
      });
      last.hold({ work, stepping }, kept);
      return kept;
    },
    drop: async ({ id, tab }) => {
      last.forget({ id, tab });
      const at = ready().transaction(['works', 'steps'], 'readwrite', RELAXED);
      const gone = [
        at.objectStore('works').delete([id, tab]),
        at.objectStore('steps').delete(stepsFrom(id, tab)),
      ];
      at.commit();
      await Promise.all([...gone, at.done]);
    },
    works: async () => {
      await hear();
      return ready().getAll('works');
    },
    adopt: async ({ id, tab }, to) => {
      const at = ready().transaction(['works', 'steps'], 'readwrite', RELAXED);
      const [works, steps] = [at.objectStore('works'), at.objectStore('steps')];
      const work = await works.get([id, tab]);
      if (!work) return null;
      const [keys, all] = await Promise.all([
        steps.getAllKeys(stepsFrom(id, tab)),
        steps.getAll(stepsFrom(id, tab)),
      ]);
      // Those long ago may be gone: they are counted anew from the first that is left.
      const first = keys[0]?.[2] ?? 0;
      const mine: Work = { ...work, tab: to, back: Math.max(0, work.back - first) };
      const moved: Promise<unknown>[] = [works.delete([id, tab]), steps.delete(stepsFrom(id, tab))];
      moved.push(works.put(mine), ...all.map((step, nth) => steps.put(step, [id, to, nth])));
      at.commit();
      await Promise.all([...moved, at.done]);
      return { work: mine, steps: all };
    },
    post: (entry) => {
      const keep = async (): Promise<void> => {
        const at = ready().transaction('outbox', 'readwrite', RELAXED);
        const put = at.store.put(entry);
        at.commit();
        await Promise.all([put, at.done]);
      };
      const kept = keep();
      last.hold({ entry }, kept);
      return kept;
    },
    entries: async () => {
      await hear();
      return (await ready().getAll('outbox')).sort((a, b) => a.at - b.at || a.nth - b.nth);
    },
    sent: async ({ key, at, nth, tab }) => {
      const outbox = ready().transaction('outbox', 'readwrite', RELAXED);
      const is = await outbox.store.get(key);
      if (is && is.at === at && is.nth === nth && is.tab === tab) await outbox.store.delete(key);
      await outbox.done;
    },
  };
}

import { type Stepping, type Work, type WorkKey } from './journal.ts';
import { type Entry } from './outbox.ts';

/** Work that was put into the journal, with the steps that were put since; null where there was no room for them. */
export interface LastWork {
  readonly work: Work;
  readonly steppings: readonly Stepping[] | null;
}
/** What a tab put into the journal last: the newest of each chart, and what is to be sent. */
export interface Last {
  readonly works: readonly LastWork[];
  readonly entries: readonly Entry[];
}
type Word = { readonly work: Work; readonly stepping: Stepping | null } | { readonly entry: Entry };
/** Where a browser keeps texts by name at once, as local storage does. */
export type Shelf = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>;

/**
 * What the journal has not confirmed when the page goes. A browser whose database is behind calls off what waits in it for a page that
 * is gone, although it was committed (seen in Chromium 156); what is kept by name is kept at once.
 */
export interface LastWords {
  /** Holds a word until `kept` is settled. */
  readonly hold: (word: Word, kept: Promise<void>) => void;
  /** Forgets work that is held, as it is dropped. */
  readonly forget: (key: WorkKey) => void;
  /** Keeps what is held; called when the page may be going, any number of times. */
  readonly say: () => void;
  /** What other tabs said last, each with what takes it away once it is kept elsewhere. */
  readonly said: () => readonly { readonly last: Last; readonly done: () => void }[];
}

const PREFIX = 'crow-ladder.last.';

/** The newest of what is held. */
function lastOf(held: Iterable<Word>): Last {
  const works = new Map<string, { work: Work; steppings: Stepping[] }>();
  const entries = new Map<string, Entry>();
  for (const word of held)
    if ('work' in word) {
      const { work, stepping } = word;
      const key = JSON.stringify([work.id, work.tab]);
      const steppings = works.get(key)?.steppings ?? [];
      if (stepping) steppings.push(stepping);
      works.set(key, { work, steppings });
    } else entries.set(word.entry.key, word.entry);
  return { works: [...works.values()], entries: [...entries.values()] };
}
const withoutSteps = ({ works, entries }: Last): Last => ({
  works: works.map(({ work }) => ({ work, steppings: null })),
  entries,
});

/** The last words of a tab on a shelf, which is asked for when it is used, as even the asking may be refused. */
export function lastWords(tab: string, shelf: () => Shelf = () => localStorage): LastWords {
  const name = PREFIX + tab;
  const held = new Set<Word>();
  let isSaid = false;
  const put = (last: Last): boolean => {
    try {
      shelf().setItem(name, JSON.stringify(last));
      return true;
    } catch {
      // Full, or of a browser that keeps nothing by name: the journal may have it still.
      return false;
    }
  };
  const say = (): void => {
    if (held.size) {
      const last = lastOf(held);
      isSaid = put(last) || put(withoutSteps(last)) || isSaid;
    } else if (isSaid) {
      shelf().removeItem(name);
      isSaid = false;
    }
  };
  const settled = (word: Word): void => {
    if (held.delete(word) && isSaid) say();
  };
  return {
    hold: (word, kept) => {
      held.add(word);
      const done = (): void => settled(word);
      kept.then(done, done);
    },
    forget: ({ id, tab }) => {
      for (const word of held)
        if ('work' in word && word.work.id === id && word.work.tab === tab) settled(word);
    },
    say,
    said: () => {
      try {
        const all = shelf();
        const names = Array.from({ length: all.length }, (_, nth) => all.key(nth) ?? '');
        return names
          .filter((is) => is.startsWith(PREFIX) && is !== name)
          .map((is) => {
            const text = all.getItem(is);
            // What was said meanwhile stays.
            const done = (): void => {
              if (all.getItem(is) === text) all.removeItem(is);
            };
            return { last: lastIn(text), done };
          });
      } catch {
        return [];
      }
    },
  };
}

/** What a text says, as far as it can be read. */
function lastIn(text: string | null): Last {
  const list = (it: unknown): readonly unknown[] => (Array.isArray(it) ? (it as unknown[]) : []);
  const isName = (it: unknown): boolean => typeof it === 'string';
  try {
    const { works, entries } = JSON.parse(text ?? '{}') as { works?: unknown; entries?: unknown };
    const isWork = (it: unknown): it is LastWork => {
      const work = (it as LastWork | null)?.work;
      return isName(work?.id) && isName(work?.tab);
    };
    const isEntry = (it: unknown): it is Entry => isName((it as Entry | null)?.key);
    return { works: list(works).filter(isWork), entries: list(entries).filter(isEntry) };
  } catch {
    return { works: [], entries: [] };
  }
}

import { type Stepping, type Work, type WorkKey } from './journal.ts';
import { type Entry } from './outbox.ts';

/** Something that was put into the journal: work with its step, or what is to be sent. */
export type Word = { readonly work: Work; readonly stepping: Stepping | null } | { readonly entry: Entry };
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
  readonly said: () => readonly { readonly words: readonly Word[]; readonly done: () => void }[];
}

const PREFIX = 'crow-ladder.last.';

/** The last words of a tab on a shelf, which is asked for when it is used, as even the asking may be refused. */
export function lastWords(tab: string, shelf: () => Shelf = () => localStorage): LastWords {
  const name = PREFIX + tab;
  const held = new Set<Word>();
  let isSaid = false;
  const say = (): void => {
    if (!held.size && !isSaid) return;
    try {
      if (held.size) shelf().setItem(name, JSON.stringify([...held]));
      else shelf().removeItem(name);
      isSaid = held.size > 0;
    } catch {
      // A browser that keeps nothing by name, or is full: the journal may have it still.
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
          .map((is) => ({ words: wordsIn(all.getItem(is)), done: () => all.removeItem(is) }));
      } catch {
        return [];
      }
    },
  };
}

/** The words in a text, as far as they can be read. */
function wordsIn(text: string | null): readonly Word[] {
  const isName = (it: unknown): boolean => typeof it === 'string';
  const isWord = (it: unknown): it is Word => {
    const { work, entry } = (it ?? {}) as { readonly work?: Partial<Work>; readonly entry?: Partial<Entry> };
    return (isName(work?.id) && isName(work?.tab)) || isName(entry?.key);
  };
  try {
    const read: unknown = JSON.parse(text ?? '[]');
    return Array.isArray(read) ? (read as unknown[]).filter(isWord) : [];
  } catch {
    return [];
  }
}

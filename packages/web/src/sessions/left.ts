import { entryDone, isForLibrary, livingTabs } from '../app/outbox.ts';
import { type Work } from '../ports/journal.ts';
import { type Entry } from '../ports/outbox.ts';
import { findApart, type Thunk } from './opening.ts';
import { keepAsChart } from './saving.ts';
import { dropped } from './sessions.ts';

/** Keeps a chart that was made on another library as a new one of this. */
export const keepApart =
  (work: Work): Thunk<Promise<void>> =>
  async (send) => {
    send(keepAsChart({ ...work.draft, name: work.draft.name || 'New chart' }));
    await send(discardApart(work));
  };
export const discardApart =
  (work: Work): Thunk<Promise<void>> =>
  async (send, _, { journal }) => {
    await journal.drop(work);
    await send(findApart());
  };

/** A new chart that was never saved, as a list shows it. */
export interface Drafted extends Work {
  /** Whether another tab has it open. */
  readonly elsewhere: boolean;
}
/** The new charts that have no name yet, the last one first. */
export const drafts =
  (): Thunk<Promise<readonly Drafted[]>> =>
  async (_, getState, { journal, locks, tab }) => {
    if (!(await journal.opened)) return [];
    const isAlive = await livingTabs(locks);
    return (await journal.works())
      .filter((w) => w.draft.name === '' && isForLibrary(w.library, getState()))
      .map((w) => ({ ...w, elsewhere: w.tab !== tab && isAlive(w.tab) }))
      .sort((a, b) => b.at - a.at);
  };
/** Throws a draft away; gives what takes it back. */
export const discardDraft =
  (draft: Work): Thunk<Promise<() => Promise<void>>> =>
  async (send, _, { journal }) => {
    send(dropped([draft.id]));
    await journal.drop(draft);
    return () => journal.keep({ ...draft, back: 0 });
  };

/** Gives up something that waits to be sent. */
export const dropEntry =
  (entry: Entry): Thunk<void> =>
  (send, _, { journal }) => {
    journal.sent(entry).catch(() => undefined);
    send(entryDone(entry));
  };

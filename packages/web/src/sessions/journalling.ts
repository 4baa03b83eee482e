import { type Middleware } from '@reduxjs/toolkit';
import { keptAgain, notKept, type WithStanding } from '../app/standing.ts';
import { type Stepping } from '../ports/journal.ts';
import { type Outside } from '../ports/outside.ts';
import { type Session, type WithSessions } from './sessions.ts';
import { stepBetween } from './steps.ts';

/** What journalling works with. */
export type JournalOutside = Pick<Outside, 'journal' | 'clock' | 'tab'>;

/** What of a session makes a difference to what is kept of it. */
const PARTS = ['touched', 'revision', 'draft', 'sent', 'of', 'save'] as const;

/** Where a change of a session leads on its way: to a new step, along those that are there, or nowhere. */
function moved(
  before: Session,
  after: Session,
  at: number,
): { readonly at: number; readonly stepping: Stepping | null } {
  if (after.draft === before.draft) return { at, stepping: null };
  if (after.draft === before.future[0]) return { at: at + 1, stepping: null };
  // What came before the journal had the chart leads back no further.
  if (after.draft === before.past.at(-1)) return { at: Math.max(0, at - 1), stepping: null };
  if (after.past.at(-1) !== before.draft) return { at, stepping: null };
  const step = stepBetween(before.draft, after.draft);
  return { at: at + 1, stepping: { at, step, ends: before.future.length > 0 } };
}

/**
 * Puts what is made of charts into the journal, in the same task as the change, before anything else follows from it. Who listens
 * learns from `standing` where it cannot be kept.
 */
export function journalling({
  journal,
  clock,
  tab,
}: JournalOutside): Middleware<object, WithSessions & WithStanding> {
  /** How many steps back each chart has that is in the journal, and the library that it was made on. */
  const kept = new Map<string, { readonly back: number; readonly library: string | null }>();
  return (api) => {
    const { dispatch } = api;
    const keeps = (): boolean => api.getState().standing.keeps;
    const told = (done: Promise<void>): void => {
      done.then(
        () => keeps() || dispatch(keptAgain()),
        () => keeps() && dispatch(notKept()),
      );
    };
    const follow = (id: string, before: Session | undefined, after: Session | undefined): void => {
      if (!after) {
        if (kept.delete(id)) told(journal.drop({ id, tab }));
        return;
      }
      if (!after.touched || (before && PARTS.every((part) => before[part] === after[part]))) return;
      const is = kept.get(id);
      const { at: back, stepping } = before
        ? moved(before, after, is?.back ?? 0)
        : { at: after.past.length, stepping: null };
      const library = is?.library ?? api.getState().standing.library;
      kept.set(id, { back, library });
      const { revision, draft, sent, of, save } = after;
      const work = {
        id,
        tab,
        library,
        revision,
        draft,
        kept: save === 'saved',
        at: clock.now(),
        sent,
        back,
        of,
      };
      told(journal.keep(work, stepping));
    };
    return (next) => (action) => {
      const before = api.getState().sessions.entities;
      const result = next(action);
      const after = api.getState().sessions.entities;
      if (before !== after)
        for (const id of new Set([...Object.keys(before), ...Object.keys(after)]))
          if (before[id] !== after[id]) follow(id, before[id], after[id]);
      return result;
    };
  };
}

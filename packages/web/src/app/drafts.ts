import { stateToQuery } from '../model/addressWords.ts';
import { NEW, type Session, sessionOf, type WithSessions } from '../sessions/sessions.ts';
import { onLeaving } from '../ui/later.ts';

/** New charts that were worked on and never saved, as this browser keeps them. */
export interface KeptDraft {
  /** When it was begun, in ms; it names the draft. */
  readonly begun: number;
  /** When it was changed last, in ms. */
  readonly at: number;
  /** Its whole state, as an address carries it. */
  readonly query: string;
}

const KEPT_AT = 'crow-ladder.drafts';
const MOST = 5;

const isDraft = (d: unknown): d is KeptDraft =>
  typeof d === 'object' &&
  d !== null &&
  typeof (d as KeptDraft).begun === 'number' &&
  typeof (d as KeptDraft).at === 'number' &&
  typeof (d as KeptDraft).query === 'string';

/** The drafts, the last one first; none where the browser keeps nothing or something else. */
export function keptDrafts(): readonly KeptDraft[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEPT_AT) ?? '[]');
    return Array.isArray(kept) ? kept.filter(isDraft).sort((a, b) => b.at - a.at) : [];
  } catch {
    return [];
  }
}

function write(drafts: readonly KeptDraft[]): void {
  try {
    localStorage.setItem(KEPT_AT, JSON.stringify(drafts.slice(0, MOST)));
  } catch {
    // A browser that keeps nothing loses drafts with the page; while they are open they are in the address.
  }
}

const keepDraft = (draft: KeptDraft): void =>
  write([draft, ...keptDrafts().filter((d) => d.begun !== draft.begun)]);
export const dropDraft = (begun: number): void => write(keptDrafts().filter((d) => d.begun !== begun));

/** A draft is written once the work rests, so that it holds up no change of the neck. */
const REST_MS = 400;

/** Keeps a new chart that is being changed, until it is saved. */
export function keepDrafts(store: {
  readonly getState: () => WithSessions;
  readonly subscribe: (listener: () => void) => unknown;
}): void {
  let kept: Session | undefined = sessionOf(store.getState(), NEW);
  let begun = Date.now();
  let timer: ReturnType<typeof setTimeout> | undefined;
  const flush = (): void => {
    clearTimeout(timer);
    timer = undefined;
    if (kept) keepDraft({ begun, at: Date.now(), query: stateToQuery(kept.draft.state).toString() });
  };
  onLeaving(() => timer !== undefined && flush(), 'last');
  store.subscribe(() => {
    const now = sessionOf(store.getState(), NEW);
    if (now === kept) return;
    const before = kept;
    kept = now;
    if (!now) {
      // Saved, it has a place of its own.
      clearTimeout(timer);
      timer = undefined;
      dropDraft(begun);
    } else if (!now.past.length && !now.future.length) begun = Date.now();
    else if (now.draft.state !== before?.draft.state) {
      clearTimeout(timer);
      timer = setTimeout(flush, REST_MS);
    }
  });
}

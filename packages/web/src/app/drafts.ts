import { stateToQuery } from '../model/addressWords.ts';
import { begunIn, type Session, sessionOf, type WithSessions } from '../sessions/sessions.ts';
import { browserKeeping, type Keeping } from '../ports/keeping.ts';
import { type Outside } from '../ports/outside.ts';
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
export function keptDrafts(keeping: Keeping = browserKeeping): readonly KeptDraft[] {
  try {
    const kept: unknown = JSON.parse(keeping.getItem(KEPT_AT) ?? '[]');
    return Array.isArray(kept) ? kept.filter(isDraft).sort((a, b) => b.at - a.at) : [];
  } catch {
    return [];
  }
}

function write(drafts: readonly KeptDraft[], keeping: Keeping): void {
  try {
    keeping.setItem(KEPT_AT, JSON.stringify(drafts.slice(0, MOST)));
  } catch {
    // A browser that keeps nothing loses drafts with the page; while they are open they are in the address.
  }
}

const others = (begun: number, keeping: Keeping): readonly KeptDraft[] =>
  keptDrafts(keeping).filter((d) => d.begun !== begun);
export const dropDraft = (begun: number, keeping: Keeping = browserKeeping): void =>
  write(others(begun, keeping), keeping);

/** A draft is written once the work rests, so that it holds up no change of the neck. */
const REST_MS = 400;

/** Keeps a new chart that is being changed, until it is saved. */
export function keepDrafts(
  store: { readonly getState: () => WithSessions; readonly subscribe: (listener: () => void) => unknown },
  { clock, keeping }: Pick<Outside, 'clock' | 'keeping'>,
): void {
  let kept: Session | undefined = begunIn(store.getState());
  /** When those were begun that the server does not have yet. */
  const begun = new Map<string, number>();
  const begunAt = ({ id }: Session): number => {
    if (!begun.has(id)) begun.set(id, clock.now());
    return begun.get(id)!;
  };
  let waiting: (() => void) | null = null;
  const callOff = (): void => {
    waiting?.();
    waiting = null;
  };
  const flush = (): void => {
    callOff();
    if (!kept) return;
    const draft = { begun: begunAt(kept), at: clock.now(), query: stateToQuery(kept.draft.state).toString() };
    write([draft, ...others(draft.begun, keeping)], keeping);
  };
  onLeaving(() => waiting && flush(), 'last');
  store.subscribe(() => {
    const state = store.getState();
    for (const [id, at] of begun)
      if ((sessionOf(state, id)?.revision ?? 0) > 0) {
        // Saved, it has a place of its own.
        begun.delete(id);
        dropDraft(at, keeping);
      }
    const now = begunIn(state);
    if (now === kept) return;
    const before = kept;
    const isNext = now && now.id !== before?.id;
    if (isNext && waiting) flush();
    kept = now;
    if (!now) callOff();
    else if (isNext) begunAt(now);
    else if (now.draft.state !== before?.draft.state) {
      callOff();
      waiting = clock.after(REST_MS, flush);
    }
  });
}

import { startTransition, useEffect, useState } from 'react';

/**
 * Runs work once the browser has drawn what has changed; soon in a hidden tab, where nothing is drawn. Returns a way to
 * call it off.
 */
export function afterPaint(work: () => void): () => void {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const soon = (): void => {
    timer = setTimeout(work);
  };
  const frame = document.hidden ? soon() : requestAnimationFrame(soon);
  return () => {
    if (frame !== undefined) cancelAnimationFrame(frame);
    clearTimeout(timer);
  };
}

/** When the browser has drawn what has changed. */
export const painted = (): Promise<void> => new Promise((done) => void afterPaint(done));

/** A value that follows a moment later than it changes, so that what shows it does not hold up the neck. */
export function useAfterPaint<T>(value: T): T {
  const [kept, keep] = useState(() => value);
  useEffect(() => afterPaint(() => startTransition(() => keep(() => value))), [value]);
  return kept;
}

/**
 * Renders that follow a moment later: asked for any number of times, `work` is done once, after the next drawing, and does
 * not hold up what is more urgent.
 */
export function follower(work: () => void): { readonly ask: () => void; readonly callOff: () => void } {
  let waiting: (() => void) | null = null;
  return {
    ask: () => {
      waiting ??= afterPaint(() => {
        waiting = null;
        startTransition(work);
      });
    },
    callOff: () => waiting?.(),
  };
}

const STANDING_MS = 600;
/** Fetches what is likely to be asked for, once the page stands. `load` stays the same function. */
export function useFetchedSoon(load: () => Promise<unknown>): void {
  useEffect(() => {
    const timer = setTimeout(() => void load(), STANDING_MS);
    return () => clearTimeout(timer);
  }, [load]);
}

type Leaving = (gone: boolean) => void;
/** What is done when the page may be going: what fields still hold comes first, then what saves it. */
const LEAVING = { first: new Set<Leaving>(), last: new Set<Leaving>() };
let watching = false;
function watch(): void {
  if (watching) return;
  watching = true;
  const go = (gone: boolean): void => {
    for (const works of [LEAVING.first, LEAVING.last]) for (const work of works) work(gone);
  };
  window.addEventListener('beforeunload', () => go(false));
  document.addEventListener('visibilitychange', () => document.hidden && go(false));
  window.addEventListener('pagehide', () => go(true));
}

/**
 * Runs work whenever the page may be about to go: asked to close, hidden, or `gone`. It comes several times, as none of these
 * is certain to come; `last` comes after all that is done `first`. Returns a way to call it off.
 */
export function onLeaving(work: Leaving, when: keyof typeof LEAVING = 'first'): () => void {
  watch();
  LEAVING[when].add(work);
  return () => void LEAVING[when].delete(work);
}

import { nanoid } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { serverCharts } from './app/api.ts';
import { tabLock } from './app/outbox.ts';
import { notKept, outdated } from './app/standing.ts';
import { browserJournal, openJournal } from './ports/browserJournal.ts';
import { pageClock } from './ports/clock.ts';
import { browserKeeping } from './ports/keeping.ts';
import { lastWords } from './ports/lastWords.ts';
import { type Network, type Outside } from './ports/outside.ts';
import { browserChannel, browserLocks } from './ports/tabs.ts';
import { live } from './sessions/living.ts';
import { guardLeaving } from './sessions/saving.ts';
import { makeStore } from './store.ts';
import { onLeaving } from './ui/later.ts';

/** The application as a page has it: on the server that it came from, by the clock of this computer, kept by this browser. */
export function compose() {
  const network: Network = { base: '/api', fetch: (...asked) => fetch(...asked) };
  const tab = nanoid();
  const opening = openJournal((isOutdated) => {
    store.dispatch(notKept());
    if (isOutdated) store.dispatch(outdated());
  });
  opening.catch(() => undefined);
  const locks = browserLocks(opening, pageClock, tab);
  const channel = browserChannel();
  const last = lastWords(tab);
  onLeaving(last.say, 'last');
  // The others know by it that this tab is there.
  let alive = locks.hold(tabLock(tab));
  const persist = (): void => {
    if ('storage' in navigator) navigator.storage.persist().catch(() => undefined);
  };
  const outside: Outside = {
    clock: pageClock,
    network,
    keeping: browserKeeping,
    charts: serverCharts(network),
    journal: browserJournal(opening, alive, last, persist),
    locks,
    channel,
    tab,
  };
  const store = makeStore(outside);
  // What another tab has changed meanwhile is read when this one is looked at again.
  setupListeners(store.dispatch);
  guardLeaving(store);
  window.addEventListener('pagehide', () => {
    alive.then((letGo) => letGo()).catch(() => undefined);
    channel.tell({ is: 'gone' });
  });
  window.addEventListener('pageshow', ({ persisted }) => {
    if (persisted) alive = locks.hold(tabLock(tab));
  });
  void live(store, outside);
  // A part of the page that is no longer there, as after an update.
  window.addEventListener('vite:preloadError', () => store.dispatch(outdated()));
  return store;
}

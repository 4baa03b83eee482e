import { setupListeners } from '@reduxjs/toolkit/query';
import { serverCharts } from './app/api.ts';
import { outdated } from './app/standing.ts';
import { makeStore, type Store } from './app/store.ts';
import { pageClock } from './ports/clock.ts';
import { browserKeeping } from './ports/keeping.ts';
import { type Network } from './ports/outside.ts';
import { guardLeaving } from './sessions/saving.ts';

/** The application as a page has it: on the server that it came from, by the clock of this computer, kept by this browser. */
export function compose(): Store {
  const network: Network = { base: '/api', fetch: (...asked) => fetch(...asked) };
  const store = makeStore({
    clock: pageClock,
    network,
    keeping: browserKeeping,
    charts: serverCharts(network),
  });
  // What another tab has changed meanwhile is read when this one is looked at again.
  setupListeners(store.dispatch);
  guardLeaving(store);
  // A part of the page that is no longer there, as after an update.
  window.addEventListener('vite:preloadError', () => store.dispatch(outdated()));
  return store;
}

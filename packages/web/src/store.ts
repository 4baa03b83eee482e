import { configureStore } from '@reduxjs/toolkit';
import { server } from './app/api.ts';
import { deleted, notice, status } from './app/notice.ts';
import { outbox } from './app/outbox.ts';
import { keepStanding, keptLibrary, standing } from './app/standing.ts';
import { keepRecent, recentKept, view } from './app/state.ts';
import { type Outside } from './ports/outside.ts';
import { journalling } from './sessions/journalling.ts';
import { savingMiddleware, type SavingOutside } from './sessions/saving.ts';
import { sessions } from './sessions/sessions.ts';

/** The page's store, on the world outside that it is given. */
export function makeStore(outside: Outside) {
  const { keeping } = outside;
  const extra: Outside & SavingOutside = { ...outside, onTheirWay: new Map(), opening: new Map() };
  const store = configureStore({
    preloadedState: {
      view: { ...view.getInitialState(), recent: recentKept(keeping) },
      standing: { ...standing.getInitialState(), library: keptLibrary(keeping) },
    },
    reducer: {
      sessions: sessions.reducer,
      view: view.reducer,
      notice: notice.reducer,
      deleted: deleted.reducer,
      status: status.reducer,
      standing: standing.reducer,
      outbox: outbox.reducer,
      server: server.reducer,
    },
    middleware: (base) =>
      base({ immutableCheck: false, serializableCheck: false, thunk: { extraArgument: extra } })
        .prepend(savingMiddleware(extra))
        .concat(server.middleware, journalling(outside)),
  });
  keepRecent(store, keeping);
  keepStanding(store, keeping);
  return store;
}

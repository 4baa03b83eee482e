import { useStore } from 'react-redux';
import { type Seen } from '../ports/outbox.ts';
import { server } from './api.ts';
import { type Deleted, deleted, said } from './notice.ts';
import { post } from './outbox.ts';
import { useShortcuts } from './shortcuts.ts';
import { type AppState, type AppWork, useSend } from './state.ts';

const { back } = deleted.actions;

/** Puts something into the bin, and tells how it comes back; `more` is said after it. What has changed since it was seen is left. */
export const remove =
  (seen: Seen, more = ''): AppWork<Promise<void>> =>
  async (send, getState) => {
    const key = `delete:${seen.id}`;
    await send(post({ kind: 'delete', seen, more }, key));
    if (getState().outbox.entries.some((e) => e.key === key))
      send(said({ text: `“${seen.name}” is deleted as soon as the server can be reached.` }));
  };

/** Brings something back from the bin, and tells it. */
export const bringBack =
  (it: Deleted): AppWork<Promise<void>> =>
  async (send) => {
    const done = await send(server.endpoints.bringBack.initiate(it));
    if (done.error) send(said({ text: `“${it.name}” could not be brought back; try again.`, undo: it }));
    else {
      send(back(it));
      send(said({ text: `“${it.name}” is back.` }));
    }
  };

/** On a page of the library the undo key brings back what was deleted, the last first. */
export function useUndelete(): void {
  const send = useSend();
  const store = useStore<AppState>();
  useShortcuts({
    undo: () => {
      const last = store.getState().deleted.at(-1);
      if (last) void send(bringBack(last));
      else send(said({ text: 'Nothing that was deleted in this visit is left to bring back.' }));
    },
  });
}

import { useStore } from 'react-redux';
import { server, type Trouble } from './api.ts';
import { type Deleted, deleted, said } from './notice.ts';
import { useShortcuts } from './shortcuts.ts';
import { type State, type Store, useSend } from './store.ts';

type Work = (send: Store['dispatch']) => Promise<void>;
const { gone, back } = deleted.actions;

/** Something to be deleted, as it was seen. */
export type Seen = Deleted & { readonly revision: number };

/** Puts something into the bin, and tells how it comes back; `more` is said after it. What has changed since it was seen is left. */
export const remove =
  ({ revision, ...it }: Seen, more = ''): Work =>
  async (send) => {
    const done = await send(server.endpoints.remove.initiate({ ...it, revision }));
    const { code, message, current } = (done.error ?? {}) as Partial<Trouble<{ readonly revision: number }>>;
    if (code === 'conflict' && current) {
      const insist = { ...it, revision: current.revision };
      send(said({ text: `“${it.name}” was changed elsewhere meanwhile, so it was not deleted.`, insist }));
    } else if (message) send(said({ text: message }));
    else {
      send(gone(it));
      send(said({ text: `Deleted “${it.name}”.${more}`, undo: it }));
    }
  };

/** Brings something back from the bin, and tells it. */
export const bringBack =
  (it: Deleted): Work =>
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
  const store = useStore<State>();
  useShortcuts({
    undo: () => {
      const last = store.getState().deleted.at(-1);
      if (last) void send(bringBack(last));
      else send(said({ text: 'Nothing that was deleted in this visit is left to bring back.' }));
    },
  });
}

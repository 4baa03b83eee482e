import { lazy, Suspense, useState } from 'react';
import { isForLibrary } from '../../app/outbox.ts';
import { allSessions, isHeldUp } from '../../sessions/sessions.ts';
import { type State, useAll } from '../../sessions/state.ts';
import { useFetchedSoon } from '../../ui/later.ts';

const loadList = () => import('./WaitingList.tsx');
const WaitingList = lazy(() => loadList().then((m) => ({ default: m.WaitingList })));

/** How much waits to be sent, or for the player to decide; what is merely on its way does not count. */
const waitsIn = (state: State): number => {
  const { entries, trouble, apart } = state.outbox;
  const held = entries.filter((e) => trouble !== null || !isForLibrary(e.library, state));
  const charts = allSessions(state).filter(isHeldUp);
  return held.length + charts.length + apart.length;
};

/** Says in a number that something waits, and lists it when it is asked; nothing while nothing does. */
export function Waits() {
  const many = useAll(waitsIn);
  const [open, setOpen] = useState(false);
  // It is asked for when the server may be away.
  useFetchedSoon(loadList);
  return (
    <>
      <span role="status">
        {many > 0 && (
          <button type="button" className="button button-quiet" onClick={() => setOpen(true)}>
            {many} not sent yet
          </button>
        )}
      </span>
      {open && (
        <Suspense>
          <WaitingList onClose={() => setOpen(false)} />
        </Suspense>
      )}
    </>
  );
}

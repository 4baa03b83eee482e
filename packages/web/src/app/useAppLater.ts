import { useEffect, useState } from 'react';
import { useStore } from 'react-redux';
import { follower } from '../ui/later.ts';
import { type State } from './store.ts';

/** A part of the state that follows a moment later than the neck. `select` stays the same function. */
export function useAppLater<T>(select: (state: State) => T): T {
  const store = useStore<State>();
  const [kept, keep] = useState(() => select(store.getState()));
  useEffect(() => {
    const { ask, callOff } = follower(() => keep(() => select(store.getState())));
    ask();
    const leave = store.subscribe(ask);
    return () => {
      leave();
      callOff();
    };
  }, [store, select]);
  return kept;
}

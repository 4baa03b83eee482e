import { useEffect, useState } from 'react';
import { useStore } from 'react-redux';
import { follower } from '../ui/later.ts';
import { type State } from './state.ts';

/**
 * A part of the state that follows a moment later than the neck. `select` stays the same function. What is gone, as a
 * session is when its page goes, stays as it was last.
 */
export function useAllLater<T>(select: (state: State) => T | undefined): T {
  const store = useStore<State>();
  const [kept, keep] = useState(() => {
    const first = select(store.getState());
    if (first === undefined) throw new Error('There is nothing to begin with.');
    return first;
  });
  useEffect(() => {
    const { ask, callOff } = follower(() =>
      keep((before) => {
        const now = select(store.getState());
        return now === undefined ? before : now;
      }),
    );
    ask();
    const leave = store.subscribe(ask);
    return () => {
      leave();
      callOff();
    };
  }, [store, select]);
  return kept;
}

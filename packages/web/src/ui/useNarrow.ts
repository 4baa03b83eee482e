import { useSyncExternalStore } from 'react';

const query = typeof window === 'undefined' ? null : window.matchMedia('(max-width: 760px)');
/** True on a narrow, upright screen, where the neck stands upright too. */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    (changed) => {
      query?.addEventListener('change', changed);
      return () => query?.removeEventListener('change', changed);
    },
    () => query?.matches ?? false,
  );

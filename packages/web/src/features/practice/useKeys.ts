import { useEffect, useLayoutEffect, useRef } from 'react';
import { useNarrow } from '../../ui/useNarrow.ts';
import { CLEAN_KEY } from './Tempos.tsx';

/** Whether a key belongs to what it was pressed on rather than to the page. */
const taken = (on: Element, key: string): boolean =>
  on.closest(
    key === ' '
      ? 'button, a, input, select, textarea, summary, [role="gridcell"], [role="dialog"]'
      : 'input:not([type="checkbox"], [type="range"]), select, textarea, [role="dialog"]',
  ) !== null;
/** What a tap is meant for itself; the rest of an upright screen says that the round was clean. */
const CONTROLS = 'button, a, input, select, label, textarea, summary, [role="dialog"], [role="menu"], nav';

interface Hands {
  readonly toggle: () => void;
  /** Null where nothing is to be said of a round. */
  readonly clean: (() => void) | null;
  readonly letterKeys: boolean;
}

/** Space plays and stops; one key, or a tap anywhere on an upright screen, says that a round was clean. */
export function useKeys(hands: Hands): void {
  const latest = useRef(hands);
  useLayoutEffect(() => {
    latest.current = hands;
  });
  const narrow = useNarrow();
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      const { toggle, clean, letterKeys } = latest.current;
      const work = e.key === ' ' ? toggle : e.key === CLEAN_KEY && letterKeys ? clean : null;
      if (!work || e.repeat || e.ctrlKey || e.metaKey || e.altKey || taken(e.target as Element, e.key))
        return;
      e.preventDefault();
      work();
    };
    const onTap = (e: MouseEvent): void => {
      const { clean } = latest.current;
      if (!narrow || !clean || (e.target as Element).closest(CONTROLS)) return;
      e.preventDefault();
      e.stopPropagation();
      clean();
    };
    window.addEventListener('keydown', onKey);
    window.addEventListener('click', onTap, { capture: true });
    return () => {
      window.removeEventListener('keydown', onKey);
      window.removeEventListener('click', onTap, { capture: true });
    };
  }, [narrow]);
}

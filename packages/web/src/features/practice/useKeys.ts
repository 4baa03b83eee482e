import { useEffect, useLayoutEffect, useRef } from 'react';
import { useNarrow } from '../../ui/useNarrow.ts';
import { useSpaceKey } from '../../ui/useSpaceKey.ts';
import { CLEAN_KEY } from './Verdict.tsx';

/** A letter belongs to what is typed into, and means something in what is open over the page. */
const TAKEN = 'input:not([type="range"]), select, textarea, [role="dialog"]';
/** What a tap is meant for itself; the rest of an upright screen says that the round was clean. */
const CONTROLS = 'button, a, input, select, label, textarea, summary, [role="dialog"], [role="menu"], nav';

interface Hands {
  /** Null where nothing is played in time. */
  readonly toggle: (() => void) | null;
  /** Null where nothing is to be said of a round. */
  readonly clean: (() => void) | null;
  readonly letterKeys: boolean;
}

/** Space plays and stops; one key, or a tap anywhere on an upright screen, says that a round was clean. */
export function useKeys(hands: Hands): void {
  useSpaceKey(hands.toggle);
  const latest = useRef(hands);
  useLayoutEffect(() => {
    latest.current = hands;
  });
  const narrow = useNarrow();
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      const { clean, letterKeys } = latest.current;
      if (e.key !== CLEAN_KEY || !clean || !letterKeys) return;
      if (e.repeat || e.ctrlKey || e.metaKey || e.altKey || (e.target as Element).closest(TAKEN)) return;
      e.preventDefault();
      e.stopPropagation();
      clean();
    };
    const onTap = (e: MouseEvent): void => {
      const { clean } = latest.current;
      if (!narrow || !clean || (e.target as Element).closest(CONTROLS)) return;
      e.preventDefault();
      e.stopPropagation();
      clean();
    };
    window.addEventListener('keydown', onKey, { capture: true });
    window.addEventListener('click', onTap, { capture: true });
    return () => {
      window.removeEventListener('keydown', onKey, { capture: true });
      window.removeEventListener('click', onTap, { capture: true });
    };
  }, [narrow]);
}

import { useEffect, useLayoutEffect, useRef } from 'react';
import { useNarrow } from '../../ui/useNarrow.ts';
import { CLEAN_KEY } from './Verdict.tsx';

/**
 * Whether a key belongs to what it was pressed on rather than to the page: to what is typed into. What else there is has Enter, so that
 * the space plays and stops wherever the focus is; a letter means something in what is open over the page.
 */
const taken = (on: Element, key: string): boolean =>
  on.closest(
    key === ' '
      ? 'input:not([type="range"], [type="number"]), textarea, [contenteditable]'
      : 'input:not([type="range"]), select, textarea, [role="dialog"]',
  ) !== null;
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
      // Before what has the focus: a neck would take the space for a choice.
      e.stopPropagation();
      work();
    };
    // Some browsers press a button as the space is let go.
    const onKeyUp = (e: KeyboardEvent): void => {
      if (e.key === ' ' && !taken(e.target as Element, e.key)) e.preventDefault();
    };
    const onTap = (e: MouseEvent): void => {
      const { clean } = latest.current;
      if (!narrow || !clean || (e.target as Element).closest(CONTROLS)) return;
      e.preventDefault();
      e.stopPropagation();
      clean();
    };
    window.addEventListener('keydown', onKey, { capture: true });
    window.addEventListener('keyup', onKeyUp, { capture: true });
    window.addEventListener('click', onTap, { capture: true });
    return () => {
      window.removeEventListener('keydown', onKey, { capture: true });
      window.removeEventListener('keyup', onKeyUp, { capture: true });
      window.removeEventListener('click', onTap, { capture: true });
    };
  }, [narrow]);
}

import { useEffect, useLayoutEffect, useRef } from 'react';

/** Whether the space belongs to what it was pressed on, as it is typed into. What else there is has Enter. */
const typedInto = (on: Element): boolean =>
  on.closest('input:not([type="range"], [type="number"]), textarea, [contenteditable]') !== null;

/** The space plays and stops wherever the focus is; null where nothing can be played. */
export function useSpaceKey(toggle: (() => void) | null): void {
  const latest = useRef(toggle);
  useLayoutEffect(() => {
    latest.current = toggle;
  });
  useEffect(() => {
    const onKey = (e: KeyboardEvent): void => {
      const work = latest.current;
      if (e.key !== ' ' || !work || e.repeat || e.ctrlKey || e.metaKey || e.altKey) return;
      if (typedInto(e.target as Element)) return;
      e.preventDefault();
      // Before what has the focus: a neck would take the space for a choice.
      e.stopPropagation();
      work();
    };
    // Some browsers press a button as the space is let go.
    const onKeyUp = (e: KeyboardEvent): void => {
      if (e.key === ' ' && !typedInto(e.target as Element)) e.preventDefault();
    };
    window.addEventListener('keydown', onKey, { capture: true });
    window.addEventListener('keyup', onKeyUp, { capture: true });
    return () => {
      window.removeEventListener('keydown', onKey, { capture: true });
      window.removeEventListener('keyup', onKeyUp, { capture: true });
    };
  }, []);
}

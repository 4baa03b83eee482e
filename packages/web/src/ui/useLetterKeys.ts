import { useEffect, useLayoutEffect, useRef } from 'react';

/** What a key of its own is not meant for: what is typed into, and what is open over the page. */
const TYPED = 'input, select, textarea, [contenteditable], [role="dialog"]';
/** Keys of letters that a task has of its own, such as one that does something to the chosen spot; nothing where the player wants no keys of letters. */
export function useLetterKeys(keys: Readonly<Record<string, () => void>>, letterKeys: boolean): void {
  const latest = useRef(keys);
  useLayoutEffect(() => {
    latest.current = keys;
  });
  useEffect(() => {
    if (!letterKeys) return;
    const onKey = (e: KeyboardEvent): void => {
      if (e.ctrlKey || e.metaKey || e.altKey || (e.target as Element).closest(TYPED)) return;
      if (!Object.hasOwn(latest.current, e.key)) return;
      e.preventDefault();
      latest.current[e.key]!();
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [letterKeys]);
}

import { useCallback, useEffect, useLayoutEffect, useRef, useState } from 'react';
import { onLeaving } from './later.ts';

/** A field's text with what is done as it is typed and left. */
export interface Typed {
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly onBlur: () => void;
}

const nobody = (): void => undefined;

/**
 * Text that is kept once its field is left, and also when the page or the view is left; where `pauseMs` is given, already
 * at each pause in typing. `keep` says whether the text could be kept; one that could not stays on show. `onTyping`, the same one
 * each time, is told when text is typed that may not be kept yet, and when there is none any more.
 */
export function useTyped(
  value: string,
  keep: (text: string) => boolean,
  pauseMs: number | null = null,
  onTyping: (typing: boolean) => void = nobody,
): Typed {
  const [typed, setTyped] = useState<string | null>(null);
  const latest = useRef({ typed, value, keep });
  useLayoutEffect(() => {
    latest.current = { typed, value, keep };
  });
  const flush = useCallback((): boolean => {
    const now = latest.current;
    return now.typed === null || now.typed === now.value || now.keep(now.typed);
  }, []);
  const isTyping = typed !== null;
  useLayoutEffect(() => {
    if (!isTyping) return;
    onTyping(true);
    return () => onTyping(false);
  }, [isTyping, onTyping]);
  useEffect(() => {
    if (typed === null || pauseMs === null) return;
    const timer = setTimeout(flush, pauseMs);
    return () => clearTimeout(timer);
  }, [typed, pauseMs, flush]);
  // In the layout phase, so that a view that is left keeps its text before the chart is saved on the way out.
  useLayoutEffect(() => {
    const stay = onLeaving(flush);
    return () => {
      stay();
      flush();
    };
  }, [flush]);
  return { text: typed ?? value, onText: setTyped, onBlur: () => flush() && setTyped(null) };
}

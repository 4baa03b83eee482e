import { useEffect } from 'react';
import { told } from './notice.ts';
import { useSend } from './state.ts';

const REST_MS = 500;

/** Tells what a search or a field has come to once the typing rests; nothing where there is nothing to tell. */
export function useTold(text: string | null): void {
  const send = useSend();
  useEffect(() => {
    if (text === null) return;
    const timer = setTimeout(() => send(told(text)), REST_MS);
    return () => clearTimeout(timer);
  }, [text, send]);
}

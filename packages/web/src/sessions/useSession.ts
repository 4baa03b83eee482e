import { type ChartDraft } from '@crow-ladder/contract';
import { createContext, useCallback, useContext } from 'react';
import { type State, useAll, useSendAll } from './state.ts';
import { changed, type Session, sessionOf, typed } from './sessions.ts';

const Context = createContext<string>('');
/** Says which session the parts of a page belong to. */
export const SessionProvider = Context.Provider;
export const useSessionId = (): string => useContext(Context);

/** Something of the session on the page. The page shows a session only while there is one. */
export function useSession<T>(select: (session: Session) => T): T {
  const id = useSessionId();
  return useAll((state) => select(sessionOn(state, id)));
}

export function sessionOn(state: State, id: string): Session {
  const session = sessionOf(state, id);
  if (!session) throw new Error(`No session is open for ${id}.`);
  return session;
}

/** Says that a text of the chart on the page is being typed, or no more. */
export function useTyping(): (typing: boolean) => void {
  const id = useSessionId();
  const send = useSendAll();
  return useCallback((typing: boolean) => void send(typed({ id, typing })), [id, send]);
}

/** Changes what the player typed about the chart on the page. */
export function useChange(): (part: Partial<ChartDraft>) => void {
  const id = useSessionId();
  const send = useSendAll();
  return useCallback((part: Partial<ChartDraft>) => void send(changed({ id, part })), [id, send]);
}

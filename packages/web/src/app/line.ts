import { createContext, useContext } from 'react';

const Context = createContext<HTMLElement | null>(null);
/** Gives the pages their place in the one line on top. */
export const LineProvider = Context.Provider;
/** Where a page puts what is its own in the line on top; null before it stands. */
export const useLine = (): HTMLElement | null => useContext(Context);

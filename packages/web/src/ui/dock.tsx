import { createContext, type ReactNode, useContext } from 'react';
import { createPortal } from 'react-dom';

const Context = createContext<HTMLElement | null>(null);
/** Gives a task its place in the dock of an upright screen. */
export const DockProvider = Context.Provider;

/** What stands in the dock of an upright screen in place of the positions; nowhere else on a wide one. */
export function InDock({ children }: { readonly children: ReactNode }) {
  const dock = useContext(Context);
  return dock && createPortal(children, dock);
}

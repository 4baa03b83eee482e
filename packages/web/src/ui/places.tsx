import { createContext, type ReactNode, useContext } from 'react';
import { createPortal } from 'react-dom';

/** A place of the frame that what stands within it fills: what gives it, and what puts something there once it stands. */
function place() {
  const Context = createContext<HTMLElement | null>(null);
  function In({ children }: { readonly children: ReactNode }) {
    const at = useContext(Context);
    return at && createPortal(children, at);
  }
  return [Context.Provider, In] as const;
}

/** The one line on top, for what is a page's own. */
export const [LineProvider, InLine] = place();
/** The dock of an upright screen, for what a task has in place of the positions; there is none on a wide one. */
export const [DockProvider, InDock] = place();

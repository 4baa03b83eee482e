import { createContext, useContext } from 'react';
import { type Given } from '../workers/opened.ts';

/** What the page does with files of the chart that is open. */
export interface Files {
  /** Asks for a file, or opens the one that is given. */
  readonly open: (given?: Given) => void;
  /** Asks what is to be saved, beginning with what is named. */
  readonly save: (what?: string) => void;
  /** Asks what is to be printed. */
  readonly print: () => void;
}
const nothing = (): void => undefined;
const Context = createContext<Files>({ open: nothing, save: nothing, print: nothing });
export const FilesProvider = Context.Provider;
export const useFiles = (): Files => useContext(Context);

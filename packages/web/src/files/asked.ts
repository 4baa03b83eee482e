import { createContext, useContext } from 'react';
import { type Given } from '../workers/opened.ts';

/** What the page does with the chart that is open, beside changing it. */
export interface Files {
  /** Asks for a file, or opens the one that is given. */
  readonly open: (given?: Given) => void;
  /** Asks what is to be saved, beginning with what is named. */
  readonly save: (what?: string) => void;
  /** Asks what is to be printed. */
  readonly print: () => void;
  /** Asks what of it is to be learned. */
  readonly learn: () => void;
  /** Tunes the guitar. */
  readonly tune: () => void;
}
const nothing = (): void => undefined;
const Context = createContext<Files>({
  open: nothing,
  save: nothing,
  print: nothing,
  learn: nothing,
  tune: nothing,
});
export const FilesProvider = Context.Provider;
export const useFiles = (): Files => useContext(Context);

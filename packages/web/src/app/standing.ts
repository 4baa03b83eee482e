import { createAction, createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { type Keeping } from '../ports/keeping.ts';

/** How the page stands to the server. */
interface Standing {
  /** Whether the server asks for its passcode first. */
  readonly locked: boolean;
  /** How often the passcode was given in this visit: what failed without it is asked for again. */
  readonly cameIn: number;
  /** The version of the server that this page began with. */
  readonly version: string | null;
  /** Whether the server is of another version than this page, or no longer has parts of it. */
  readonly outdated: boolean;
  /** Which library the server has; null where it was not heard of yet. */
  readonly library: string | null;
  /** Whether this browser keeps what is done here. */
  readonly keeps: boolean;
}
/** A state that holds how the page stands. */
export interface WithStanding {
  readonly standing: Standing;
}

export const standing = createSlice({
  name: 'standing',
  initialState: {
    locked: false,
    cameIn: 0,
    version: null,
    outdated: false,
    library: null,
    keeps: true,
  } as Standing,
  reducers: {
    locked: (at): Standing => ({ ...at, locked: true }),
    cameIn: (at): Standing => ({ ...at, locked: false, cameIn: at.cameIn + 1 }),
    versionSeen: (at, { payload }: PayloadAction<string>): Standing =>
      at.version === null
        ? { ...at, version: payload }
        : at.version === payload
          ? at
          : { ...at, outdated: true },
    outdated: (at): Standing => ({ ...at, outdated: true }),
    librarySeen: (at, { payload }: PayloadAction<string>): Standing => ({ ...at, library: payload }),
    notKept: (at): Standing => ({ ...at, keeps: false }),
    keptAgain: (at): Standing => ({ ...at, keeps: true }),
  },
});
export const { locked, cameIn, versionSeen, outdated, librarySeen, notKept, keptAgain } = standing.actions;
/** Another library took the place of the one that the page was on: what was made on that is not for this one. */
export const otherLibrary = createAction('standing/otherLibrary');

/** Where the browser keeps which library the server had last, for a visit while it is away. */
const LIBRARY_AT = 'crow-ladder.library';
export function keptLibrary(keeping: Keeping): string | null {
  try {
    return keeping.getItem(LIBRARY_AT);
  } catch {
    return null;
  }
}
/** Has the browser keep which library the server has. */
export function keepStanding(
  store: { readonly getState: () => WithStanding; readonly subscribe: (listener: () => void) => unknown },
  keeping: Keeping,
): void {
  let { library } = store.getState().standing;
  store.subscribe(() => {
    const now = store.getState().standing.library;
    if (now === null || now === library) return;
    library = now;
    try {
      keeping.setItem(LIBRARY_AT, now);
    } catch {
      // A browser that keeps nothing has no work from before either.
    }
  });
}

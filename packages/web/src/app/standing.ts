import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

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
}

export const standing = createSlice({
  name: 'standing',
  initialState: { locked: false, cameIn: 0, version: null, outdated: false } as Standing,
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
  },
});
export const { locked, cameIn, versionSeen, outdated } = standing.actions;

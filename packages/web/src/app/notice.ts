import { type Binned } from '@crow-ladder/contract';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import { type Seen } from '../ports/outbox.ts';

/** Something that happened, told in passing. */
export interface Notice {
  readonly text: string;
  /** What the notice can take back. */
  readonly undo?: Deleted;
  /** What was not deleted because it has changed, and can be all the same. */
  readonly insist?: Seen;
}

/** Something that was deleted, by name. */
export type Deleted = Pick<Binned, 'kind' | 'id' | 'name'>;
export const notice = createSlice({
  name: 'notice',
  initialState: null as Notice | null,
  reducers: { said: (_, { payload }: PayloadAction<Notice | null>) => payload },
});
export const { said } = notice.actions;

/** What is told to those who cannot see what changed. Each telling has a number, so that the same words are told again. */
export const status = createSlice({
  name: 'status',
  initialState: { text: '', nth: 0 },
  reducers: {
    told: (before, { payload }: PayloadAction<string>) => ({ text: payload, nth: before.nth + 1 }),
  },
});
export const { told } = status.actions;

/** What was deleted during this visit and is not back, the last at the end: the undo key brings it back one by one. */
export const deleted = createSlice({
  name: 'deleted',
  initialState: [] as readonly Deleted[],
  reducers: {
    gone: (all, { payload }: PayloadAction<Deleted>) => [...all, payload],
    back: (all, { payload }: PayloadAction<Deleted>) => all.filter((d) => d.id !== payload.id),
  },
});

import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** Something that happened, told in passing. */
export interface Notice {
  readonly text: string;
  /** What the notice can take back, by name. */
  readonly undo?: { readonly kind: 'chart' | 'instrument'; readonly id: string };
}
export const notice = createSlice({
  name: 'notice',
  initialState: null as Notice | null,
  reducers: { said: (_, { payload }: PayloadAction<Notice | null>) => payload },
});
export const { said } = notice.actions;

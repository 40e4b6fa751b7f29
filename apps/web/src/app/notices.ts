import { createSlice, nanoid, type PayloadAction } from '@reduxjs/toolkit';

export interface Notice {
  readonly id: string;
  readonly kind: 'done' | 'trouble';
  readonly text: string;
  /** The deed that it tells of, which it offers to undo for as long as that is the last one. */
  readonly deedId: string | null;
}

/** Short messages at the foot of the screen: what was done (with undo), or what went wrong. */
export const noticeSlice = createSlice({
  name: 'notices',
  initialState: [] as Notice[],
  reducers: {
    noticed: {
      prepare: (notice: Omit<Notice, 'id'>) => ({ payload: { ...notice, id: nanoid() } }),
      reducer: (state, { payload }: PayloadAction<Notice>) => [...state.slice(-2), payload],
    },
    noticeClosed: (state, { payload }: PayloadAction<string>) => state.filter((notice) => notice.id !== payload),
  },
});
export const { noticed, noticeClosed } = noticeSlice.actions;

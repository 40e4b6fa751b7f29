import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** Whose screens these are, and whether their session ended while they were at it. */
export const sessionSlice = createSlice({
  name: 'session',
  initialState: { userId: null as string | null, ended: false },
  reducers: {
    signedIn: (state, { payload }: PayloadAction<string>) => {
      state.userId = payload;
      state.ended = false;
    },
    sessionEnded: (state) => {
      // Before anybody was signed in there is no screen to come back to.
      if (state.userId !== null) state.ended = true;
    },
  },
});
export const { signedIn, sessionEnded } = sessionSlice.actions;

const waiting = new Set<() => void>();

/** Resolves when somebody has signed in again. What was refused meanwhile is asked once more then, so nothing typed is lost. */
export function untilSignedIn(): Promise<void> {
  return new Promise((resolve) => waiting.add(resolve));
}

export function goOn(): void {
  for (const resolve of waiting) resolve();
  waiting.clear();
}

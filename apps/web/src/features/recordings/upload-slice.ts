import type { TranscriptReadingView } from '../../app/api.js';
import { createSlice, type PayloadAction } from '@reduxjs/toolkit';

/** One pair of files on its way in, or how that ended. It stays here when the screen is left. */
export interface Bringing {
  readonly id: number;
  readonly base: string;
  readonly hasTranscript: boolean;
  /** What is brought beside the transcript, by the name of its file. */
  readonly media: 'sound' | 'video' | null;
  readonly clientName: string;
  readonly state: 'waiting' | 'understanding' | 'asking' | 'sending' | 'reading' | 'done' | 'refused';
  readonly fraction: number;
  /** Until all of it is sent, at the pace so far; null while nobody can tell. */
  readonly leftMs: number | null;
  readonly detail: string;
  /** How its transcript was understood, while it is asked whether that is right. */
  readonly understood: TranscriptReadingView | null;
}

export const uploadSlice = createSlice({
  name: 'uploads',
  initialState: [] as Bringing[],
  reducers: {
    uploadsAdded: (state, { payload }: PayloadAction<Bringing[]>) => [...state.filter((one) => one.state !== 'done'), ...payload],
    uploadChanged: (state, { payload }: PayloadAction<Partial<Bringing> & { id: number }>) => {
      const one = state.find((upload) => upload.id === payload.id);
      if (one !== undefined) Object.assign(one, payload);
    },
    uploadCleared: (state, { payload }: PayloadAction<number>) => state.filter((one) => one.id !== payload),
  },
});
export const { uploadsAdded, uploadChanged, uploadCleared } = uploadSlice.actions;

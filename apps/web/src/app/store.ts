import { configureStore } from '@reduxjs/toolkit';
import { setupListeners } from '@reduxjs/toolkit/query';
import { useDispatch, useSelector } from 'react-redux';
import { benchSlice } from '../features/sifting/bench-slice.js';
import { scheduleSlice } from '../features/planning/schedule-slice.js';
import { uploadSlice } from '../features/recordings/upload-slice.js';
import { baseApi } from './base-api.js';
import { newestRows } from './newest.js';
import { noticeSlice } from './notices.js';
import { sessionSlice } from './session.js';

export const store = configureStore({
  reducer: {
    [baseApi.reducerPath]: baseApi.reducer,
    session: sessionSlice.reducer,
    bench: benchSlice.reducer,
    schedule: scheduleSlice.reducer,
    uploads: uploadSlice.reducer,
    notices: noticeSlice.reducer,
  },
  // Rankings and transcripts of 100,000 words are plain data; walking them on every action would be felt.
  middleware: (defaults) => defaults({ serializableCheck: false, immutableCheck: false }).concat(newestRows(), baseApi.middleware),
});
setupListeners(store.dispatch);

type RootState = ReturnType<typeof store.getState>;
type AppDispatch = typeof store.dispatch;
export const useAppDispatch = useDispatch.withTypes<AppDispatch>();
export const useAppSelector = useSelector.withTypes<RootState>();

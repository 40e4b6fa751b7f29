import { createSlice, type PayloadAction } from '@reduxjs/toolkit';
import type { Kind, SignalName } from '@sift-reel/core';

export type SortBy = 'score' | 'time' | 'length' | SignalName;
export type StateFilter = 'all' | 'open' | 'kept' | 'dropped';

export interface RankingFilter {
  readonly text: string;
  readonly state: StateFilter;
  readonly kind: Kind | 'all';
  /** Only candidates whose signal is at least `atLeast`. */
  readonly signal: SignalName | 'all';
  readonly atLeast: number;
  readonly longestMs: number | null;
  /** Only candidates that lie in this chapter, by its start. */
  readonly topicMs: number | null;
  /** Only candidates that carry one of these places of a phrase. */
  readonly phrase: { text: string; firstWords: number[] } | null;
}

export const NO_FILTER: RankingFilter = { text: '', state: 'all', kind: 'all', signal: 'all', atLeast: 70, longestMs: null, topicMs: null, phrase: null };

/** What only the screen knows: the chosen candidate, the order and the filter, the signal that is lit. */
export const benchSlice = createSlice({
  name: 'bench',
  initialState: {
    candidateId: null as string | null,
    sort: 'score' as SortBy,
    filter: NO_FILTER,
    lit: null as SignalName | null,
    weights: null as readonly number[] | null,
  },
  reducers: {
    candidateChosen: (state, { payload }: PayloadAction<string | null>) => {
      state.candidateId = payload;
    },
    sorted: (state, { payload }: PayloadAction<SortBy>) => {
      state.sort = payload;
    },
    filtered: (state, { payload }: PayloadAction<Partial<RankingFilter>>) => {
      Object.assign(state.filter, payload);
    },
    signalLit: (state, { payload }: PayloadAction<SignalName | null>) => {
      state.lit = payload;
    },
    /** Weights that the sliders ask for; null is those of the sift. */
    weightsWished: (state, { payload }: PayloadAction<readonly number[] | null>) => {
      state.weights = payload === null ? null : [...payload];
    },
    benchLeft: (state) => {
      state.weights = null;
      state.candidateId = null;
      state.filter = NO_FILTER;
      state.sort = 'score';
      state.lit = null;
    },
  },
});
export const { candidateChosen, sorted, filtered, signalLit, weightsWished, benchLeft } = benchSlice.actions;

import { generatedApi } from './generated-api.js';

/**
 * The generated endpoints with what a generator cannot know: which answers a change makes stale, and where a change shows
 * before the server has answered.
 */
export const api = generatedApi.enhanceEndpoints({
  endpoints: {
    // A keypress must show at once, and must not load a ranking of 500 again.
    setCandidateState: {
      invalidatesTags: ['shorts', 'planning', 'recordings'],
      async onQueryStarted({ candidateId, candidateStateForm }, { dispatch, getState, queryFulfilled }) {
        const undo = patchCandidate(dispatch, getState, candidateId, (candidate) => {
          candidate.state = candidateStateForm.state;
        });
        try {
          await queryFulfilled;
        } catch {
          undo();
        }
      },
    },
    setCandidateSpan: {
      invalidatesTags: ['shorts'],
      async onQueryStarted({ candidateId, wordSpanForm }, { dispatch, getState, queryFulfilled }) {
        const undo = patchCandidate(dispatch, getState, candidateId, (candidate) => {
          Object.assign(candidate, wordSpanForm);
        });
        try {
          // Its state is left alone: somebody may have kept it while the answer was on its way.
          const {
            data: { state: _, ...moved },
          } = await queryFulfilled;
          patchCandidate(dispatch, getState, candidateId, (candidate) => {
            Object.assign(candidate, moved);
          });
        } catch {
          undo();
        }
      },
    },
    // The ranking on the screen takes the new candidate at its rank at once; loading all of it again would make it jump.
    addCandidate: {
      invalidatesTags: [],
      async onQueryStarted({ siftId }, { dispatch, queryFulfilled }) {
        const data = await queryFulfilled.then(
          (answer) => answer.data,
          () => null, // whoever asked says what went wrong
        );
        if (data === null) return;
        dispatch(
          generatedApi.util.updateQueryData('readRanking', siftId, (ranking) => {
            const { candidates } = ranking;
            if (candidates.some((one) => one.id === data.id)) return;
            for (const one of candidates) if (one.rank >= data.rank) one.rank += 1;
            candidates.push(data);
            candidates.sort((a, b) => a.rank - b.rank);
            if (data.rank <= ranking.strongCount) ranking.strongCount += 1;
          }),
        );
      },
    },
    removeCandidate: { invalidatesTags: ['sifting'] },
    readTranscript: { providesTags: [], keepUnusedDataFor: 900 } as never,
    listSifts: { providesTags: ['sifting', 'recordings'] }, // its counts of kept ones change with every keep
    startSift: { invalidatesTags: ['sifting', 'recordings'] },
    cancelSift: { invalidatesTags: ['sifting', 'recordings'] },
    retrySift: { invalidatesTags: ['sifting', 'recordings'] },
    removeRecording: { invalidatesTags: ['recordings', 'shorts', 'sifting', 'clients'] },
    saveCopy: { invalidatesTags: ['shorts', 'planning'] },
    saveVariant: { invalidatesTags: ['shorts', 'planning'] },
    dropVariant: { invalidatesTags: ['shorts', 'planning'] },
    setApproval: { invalidatesTags: ['shorts', 'planning'] },
    proposeCopy: { invalidatesTags: [] },
    proposePlan: { invalidatesTags: [] },
    acceptPlan: { invalidatesTags: ['planning', 'shorts'] },
    takeOffPost: { invalidatesTags: ['planning', 'shorts'] },
    movePost: { invalidatesTags: ['planning'] },
    updateChannel: { invalidatesTags: ['clients', 'planning', 'shorts'] },
    createChannel: { invalidatesTags: ['clients', 'planning', 'shorts'] },
    removeChannel: { invalidatesTags: ['clients', 'planning', 'shorts'] },
    createBlackout: { invalidatesTags: ['clients', 'planning'] },
    removeBlackout: { invalidatesTags: ['clients', 'planning'] },
    updatePlatformProfile: { invalidatesTags: ['clients', 'planning', 'shorts'] },
  },
});

/** Changes a candidate in every loaded ranking. @returns how to take it back */
function patchCandidate(
  dispatch: (action: never) => unknown,
  getState: () => unknown,
  candidateId: string,
  change: (candidate: import('./generated-api.js').CandidateView) => void,
): () => void {
  const state = getState() as Parameters<typeof generatedApi.util.selectInvalidatedBy>[0];
  const undos: (() => void)[] = [];
  for (const { endpointName, originalArgs } of generatedApi.util.selectInvalidatedBy(state, ['sifting'])) {
    if (endpointName !== 'readRanking') continue;
    const patch = dispatch(
      generatedApi.util.updateQueryData('readRanking', originalArgs as string, (ranking) => {
        const candidate = ranking.candidates.find((one) => one.id === candidateId);
        if (candidate !== undefined) change(candidate);
      }) as never,
    ) as { undo: () => void };
    undos.push(patch.undo);
  }
  return () => undos.forEach((undo) => undo());
}

export type * from './generated-api.js';

import { baseApi, type Meta, nextRequest } from './base-api.js';
import { type CandidateView, generatedApi, type RankingView, type RecordingView, type SiftView } from './generated-api.js';
import { changePending, withPending } from './pending.js';

const TAGS = [
  'Session',
  'User',
  'Client',
  'Channel',
  'Platform',
  'Trail',
  'Interest',
  'Feed',
  'Calendar',
  'Recording',
  'Sift',
  'Ranking',
  'Short',
  'Batch',
  'Schedule',
  'Posting',
  'Sending',
  'Writing',
  'Render',
  'Document',
  'Translation',
] as const;

/** A tag of every thing of a list, and one of the list, which a new or a gone thing makes stale. */
const listOf =
  <T extends (typeof TAGS)[number]>(type: T) =>
  (rows: readonly { id: string }[] | undefined) => [{ type, id: 'LIST' }, ...(rows ?? []).map(({ id }) => ({ type, id }))];
const LIST = <T extends (typeof TAGS)[number]>(type: T) => ({ type, id: 'LIST' });
/** What a change of a channel, a platform or a day without posts shows in. */
const LAID_OUT = ['Schedule', LIST('Short')] as const;

/**
 * The generated endpoints with what a generator cannot know: which answers a change makes stale, by id, and where a change
 * shows before the server has answered.
 */
export const api = generatedApi.enhanceEndpoints({
  addTagTypes: TAGS,
  endpoints: {
    readSession: { providesTags: ['Session'] },
    signIn: { invalidatesTags: ['Session'] },
    signOut: { invalidatesTags: [] },
    changePassword: { invalidatesTags: ['Session'] },
    acceptInvitation: { invalidatesTags: [] },
    readInvitation: { providesTags: [] },
    readHealth: { providesTags: [] },
    listUsers: { providesTags: listOf('User') },
    createUser: { invalidatesTags: [LIST('User')] },
    updateUser: { invalidatesTags: (_, __, { userId }) => [{ type: 'User', id: userId }] },
    removeUser: { invalidatesTags: [LIST('User')] },
    inviteUser: { invalidatesTags: [LIST('User')] },

    listClients: { providesTags: listOf('Client') },
    createClient: { invalidatesTags: [LIST('Client')] },
    updateClient: { invalidatesTags: (_, __, { clientId }) => [{ type: 'Client', id: clientId }, 'Render', 'Trail'] },
    archiveClient: { invalidatesTags: [LIST('Client'), LIST('Recording'), LIST('Short'), LIST('Channel'), 'Schedule'] },
    restoreClient: { invalidatesTags: [LIST('Client'), LIST('Recording'), LIST('Short'), LIST('Channel'), 'Schedule'] },
    listArchivedClients: { providesTags: [LIST('Client')] },
    setVoice: { invalidatesTags: (_, __, { clientId }) => [{ type: 'Client', id: clientId }, LIST('Short'), 'Trail'] },
    setCardStyle: { invalidatesTags: (_, __, { clientId }) => [{ type: 'Client', id: clientId }, 'Render', 'Trail'] },
    allowWriting: { invalidatesTags: (_, __, { clientId }) => [{ type: 'Client', id: clientId }, 'Trail'] },
    setSignalWeights: { invalidatesTags: (_, __, { clientId }) => [{ type: 'Client', id: clientId }, 'Trail'] },
    listInterest: { providesTags: (_, __, clientId) => [{ type: 'Interest', id: clientId }] },
    setInterest: { invalidatesTags: (_, __, { clientId }) => [{ type: 'Interest', id: clientId }, 'Trail'] },
    listAudit: { providesTags: ['Trail'] },
    listAgencyAudit: { providesTags: ['Trail'] },
    listChannels: { providesTags: listOf('Channel') },
    createChannel: { invalidatesTags: [LIST('Channel'), LIST('Client'), 'Trail', ...LAID_OUT] },
    updateChannel: { invalidatesTags: (_, __, { channelId }) => [{ type: 'Channel', id: channelId }, 'Trail', 'Render', ...LAID_OUT] },
    removeChannel: { invalidatesTags: [LIST('Channel'), LIST('Client'), 'Trail', ...LAID_OUT] },
    listBlackouts: { providesTags: [LIST('Channel')] },
    createBlackout: { invalidatesTags: [LIST('Channel'), 'Trail', 'Schedule'] },
    removeBlackout: { invalidatesTags: [LIST('Channel'), 'Trail', 'Schedule'] },
    listPlatformProfiles: { providesTags: listOf('Platform') },
    createPlatformProfile: { invalidatesTags: [LIST('Platform')] },
    // What its files are to sound like may change with it.
    updatePlatformProfile: {
      invalidatesTags: (_, __, { platformProfileId }) => [{ type: 'Platform', id: platformProfileId }, LIST('Channel'), 'Render', ...LAID_OUT],
    },

    listRecordings: { providesTags: listOf('Recording') },
    readRecording: { providesTags: (_, __, id) => [{ type: 'Recording', id }] },
    renameRecording: { invalidatesTags: (_, __, { recordingId }) => [{ type: 'Recording', id: recordingId }, LIST('Short'), 'Render'] },
    removeRecording: { invalidatesTags: [LIST('Feed'), LIST('Recording'), LIST('Short'), LIST('Client')] },
    readTranscript: { providesTags: (_, __, id) => [{ type: 'Recording', id: `words of ${id}` }], keepUnusedDataFor: 900 },
    chooseSoundTrack: { invalidatesTags: (_, __, { recordingId }) => [{ type: 'Recording', id: recordingId }, LIST('Short'), 'Render'] },
    nameVoices: {
      invalidatesTags: (_, __, { recordingId }) => [
        { type: 'Recording', id: recordingId },
        { type: 'Recording', id: `words of ${recordingId}` },
        LIST('Short'),
      ],
    },
    readTranscriptFile: { invalidatesTags: [] },
    listenForWords: { invalidatesTags: (_, __, { recordingId }) => [{ type: 'Recording', id: recordingId }] },
    stopListening: { invalidatesTags: (_, __, recordingId) => [{ type: 'Recording', id: recordingId }] },
    prepareAgain: { invalidatesTags: (_, __, recordingId) => [{ type: 'Recording', id: recordingId }] },
    readLevels: { providesTags: (_, __, id) => [{ type: 'Recording', id }] },
    readRepairs: { providesTags: (_, __, id) => [{ type: 'Recording', id: `words of ${id}` }] },

    listFeeds: { providesTags: listOf('Feed') },
    followFeed: { invalidatesTags: [LIST('Feed'), 'Trail'] },
    changeFeed: { invalidatesTags: (_, __, { feedId }) => [{ type: 'Feed', id: feedId }, 'Trail'] },
    leaveFeed: { invalidatesTags: [LIST('Feed'), 'Trail'] },
    readFeedNow: { invalidatesTags: (_, __, feedId) => [{ type: 'Feed', id: feedId }] },
    listEpisodes: { providesTags: (_, __, feedId) => [LIST('Feed'), { type: 'Feed', id: feedId }] },
    listNewEpisodes: { providesTags: [LIST('Feed')] },
    takeInEpisode: { invalidatesTags: [LIST('Feed'), LIST('Recording'), LIST('Client'), 'Trail'] },
    fetchLink: { invalidatesTags: [LIST('Recording'), LIST('Client'), 'Trail'] },
    fetchAgain: { invalidatesTags: (_, __, recordingId) => [{ type: 'Recording', id: recordingId }] },
    stopFetch: { invalidatesTags: (_, __, recordingId) => [{ type: 'Recording', id: recordingId }] },

    listTranslations: { providesTags: (_, __, shortId) => [{ type: 'Translation', id: shortId }] },
    readTranslation: { providesTags: (_, __, { shortId }) => [{ type: 'Translation', id: shortId }] },
    saveTranslation: { invalidatesTags: (_, __, { shortId }) => translationTags(shortId) },
    draftTranslation: { invalidatesTags: (_, __, { shortId }) => translationTags(shortId) },
    setTranslationRead: { invalidatesTags: (_, __, { shortId }) => translationTags(shortId) },
    removeTranslation: { invalidatesTags: (_, __, { shortId }) => translationTags(shortId) },
    importXliff: { invalidatesTags: (_, __, { shortId }) => translationTags(shortId) },

    listDocuments: { providesTags: (_, __, recordingId) => [{ type: 'Document', id: `of ${recordingId}` }] },
    readDocument: { providesTags: (_, __, id) => [{ type: 'Document', id }] },
    makeDocument: { invalidatesTags: (_, __, { recordingId }) => documentTags(recordingId) },
    saveDocument: { invalidatesTags: (document) => documentTags(document?.recordingId, document?.id) },
    makeDocumentAgain: { invalidatesTags: (document) => documentTags(document?.recordingId, document?.id) },
    removeDocument: { invalidatesTags: ['Document', 'Trail'] },
    listDocumentVersions: { providesTags: (_, __, id) => [{ type: 'Document', id: `versions of ${id}` }] },

    listSifts: { providesTags: (_, __, recordingId) => [{ type: 'Sift', id: recordingId }] },
    readSift: { providesTags: (sift) => (sift === undefined ? [] : [{ type: 'Sift', id: sift.recordingId }]) },
    startSift: { invalidatesTags: (_, __, { recordingId }) => siftTags(recordingId) },
    cancelSift: { invalidatesTags: (sift) => (sift === undefined ? [] : siftTags(sift.recordingId)) },
    retrySift: { invalidatesTags: (sift) => (sift === undefined ? [] : siftTags(sift.recordingId)) },
    searchRecording: { providesTags: [] },
    readRanking: {
      providesTags: (_, __, siftId) => [{ type: 'Ranking', id: siftId }],
      transformResponse: (answer: unknown, meta) => {
        const ranking = answer as RankingView;
        withPending(ranking.candidates, (meta as Meta | undefined)?.request_ ?? nextRequest());
        return ranking;
      },
    },
    // A keypress shows at once, everywhere it counts, and loads neither a ranking of 500 nor the list of recordings again.
    setCandidateState: {
      invalidatesTags: [LIST('Short'), LIST('Batch'), 'Schedule', 'Trail'],
      onQueryStarted: ({ candidateId, candidateStateForm: { state } }, lifecycle) =>
        showAtOnce(candidateId, (candidate) => Object.assign(candidate, { state }), lifecycle),
    },
    setCandidateSpan: {
      // Which short moves with it is not known here.
      invalidatesTags: ['Short', 'Schedule', 'Trail'],
      onQueryStarted: ({ candidateId, wordSpanForm: { firstWord, endWord } }, lifecycle) =>
        showAtOnce(candidateId, (candidate) => Object.assign(candidate, { firstWord, endWord }), lifecycle),
    },
    // The ranking on the screen takes the new candidate at its rank at once; loading all of it again would make it jump.
    keepReel: { invalidatesTags: (_, __, { siftId }) => [{ type: 'Ranking', id: siftId }, LIST('Short'), LIST('Recording'), 'Trail'] },
    readEditList: { invalidatesTags: [] },
    keepPassages: { invalidatesTags: (_, __, { siftId }) => [{ type: 'Ranking', id: siftId }, LIST('Short'), LIST('Recording'), 'Trail'] },
    addCandidate: {
      invalidatesTags: ['Trail'],
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
    removeCandidate: { invalidatesTags: ['Ranking', 'Trail'] },

    listShorts: { providesTags: listOf('Short') },
    readShort: { providesTags: (_, __, id) => [{ type: 'Short', id }] },
    saveCopy: { invalidatesTags: (_, __, { shortId }) => wordTags(shortId) },
    saveVariant: { invalidatesTags: (_, __, { shortId }) => wordTags(shortId) },
    dropVariant: { invalidatesTags: (_, __, { shortId }) => wordTags(shortId) },
    setApproval: { invalidatesTags: (_, __, { shortId }) => [...wordTags(shortId), LIST('Batch')] },
    proposeCopy: { invalidatesTags: [] },
    listCopyVersions: { providesTags: (_, __, id) => [{ type: 'Short', id }] },
    readPassage: { providesTags: (_, __, id) => [{ type: 'Short', id }] },
    readTalk: { providesTags: (_, __, id) => [{ type: 'Short', id }] },
    proposeTightening: { providesTags: (_, __, { shortId }) => [{ type: 'Short', id: shortId }] },
    drawFrames: { providesTags: (_, __, { shortId }) => [{ type: 'Short', id: shortId }] },
    saveEdit: { invalidatesTags: (_, __, { shortId }) => wordTags(shortId) },
    checkCopy: { invalidatesTags: [] },
    offerTitles: { providesTags: [LIST('Short')] },

    readWritingService: { providesTags: [] },
    listWritings: { providesTags: (_, __, shortId) => [{ type: 'Writing', id: shortId }] },
    askForWords: { invalidatesTags: (_, __, shortId) => [{ type: 'Writing', id: shortId }] },
    cancelWriting: { invalidatesTags: ['Writing'] },
    // What a short is made of decides which of its files are outdated.
    listRenders: {
      providesTags: (_, __, shortId) => [
        { type: 'Render', id: shortId },
        { type: 'Short', id: shortId },
      ],
    },
    askForRender: { invalidatesTags: (_, __, { shortId }) => [{ type: 'Render', id: shortId }, 'Trail'] },
    listReady: { keepUnusedDataFor: 0 },
    cancelRender: { invalidatesTags: ['Render'] },

    listGoingFiles: { providesTags: ['Render'] },
    keepFileLonger: { invalidatesTags: ['Render', 'Trail'] },
    setComeAgain: { invalidatesTags: (_, __, { clientId }) => [{ type: 'Client', id: clientId }, LIST('Short'), 'Short', 'Schedule', 'Trail'] },
    setEvergreen: { invalidatesTags: (_, __, { shortId }) => [{ type: 'Short', id: shortId }, 'Schedule', 'Trail'] },
    setFilesKept: { invalidatesTags: (_, __, { clientId }) => [{ type: 'Client', id: clientId }, 'Render', 'Trail'] },

    listBatches: { providesTags: listOf('Batch') },
    createBatch: { invalidatesTags: [LIST('Batch')] },
    updateBatch: { invalidatesTags: (_, __, { batchId }) => [{ type: 'Batch', id: batchId }] },
    removeBatch: { invalidatesTags: [LIST('Batch')] },
    readSchedule: { providesTags: ['Schedule'] },
    proposePlan: { invalidatesTags: [] },
    acceptPlan: { invalidatesTags: ['Schedule', LIST('Short'), 'Trail'] },
    takeOffPost: { invalidatesTags: ['Schedule', LIST('Short'), 'Trail'] },
    movePosts: { invalidatesTags: ['Schedule', 'Trail'] },
    setPostsMovable: { invalidatesTags: ['Schedule', 'Trail'] },
    readPlanFile: { invalidatesTags: [] },
    listCalendars: { providesTags: listOf('Calendar') },
    createCalendar: { invalidatesTags: [LIST('Calendar'), 'Trail'] },
    withdrawCalendar: { invalidatesTags: [LIST('Calendar'), 'Trail'] },
    movePost: { invalidatesTags: ['Schedule', 'Trail'] },
    readPosting: { providesTags: ['Posting'] },
    setStop: { invalidatesTags: ['Posting', 'Trail'] },
    beginConnecting: { invalidatesTags: [] },
    finishConnecting: { invalidatesTags: ['Posting', 'Schedule', 'Trail'] },
    chooseAccount: { invalidatesTags: ['Posting', 'Schedule', 'Trail'] },
    disconnectAccount: { invalidatesTags: ['Posting', 'Schedule', 'Trail'] },
    setLateness: { invalidatesTags: (_, __, { clientId }) => [{ type: 'Client', id: clientId }, 'Trail'] },
    readSending: { providesTags: (_, __, postId) => [{ type: 'Sending', id: postId }] },
    sendAgain: { invalidatesTags: (_, __, { postId }) => [{ type: 'Sending', id: postId }, 'Schedule', 'Trail'] },
    tellOutcome: { invalidatesTags: (_, __, { postId }) => [{ type: 'Sending', id: postId }, 'Schedule', 'Trail'] },
    correctPost: { invalidatesTags: (_, __, { postId }) => [{ type: 'Sending', id: postId }, 'Trail'] },
    takePostDown: { invalidatesTags: (_, __, { postId }) => [{ type: 'Sending', id: postId }, 'Trail'] },
    setPostState: { invalidatesTags: ['Schedule', 'Trail'] },
  },
});

function siftTags(recordingId: string) {
  return [
    { type: 'Sift' as const, id: recordingId },
    { type: 'Recording' as const, id: recordingId },
  ];
}

/** Where a change of a document shows beside itself: the saver puts its answer in place. */
function documentTags(recordingId: string | undefined, documentId?: string) {
  const ids = [...(recordingId === undefined ? [] : [`of ${recordingId}`]), ...(documentId === undefined ? [] : [`versions of ${documentId}`])];
  return [...ids.map((id) => ({ type: 'Document' as const, id })), 'Trail' as const];
}

/** The short shows in its channels whether it is translated. */
function translationTags(shortId: string) {
  return [{ type: 'Translation' as const, id: shortId }, ...wordTags(shortId)];
}

function wordTags(shortId: string) {
  return [{ type: 'Short' as const, id: shortId }, 'Schedule' as const, 'Trail' as const];
}

interface Lifecycle {
  dispatch: (action: never) => unknown;
  getState: () => unknown;
  queryFulfilled: Promise<{ data: CandidateView }>;
}

/** Shows a change of a candidate in every loaded ranking and in the counts of kept ones, and takes it back when the server refuses. */
async function showAtOnce(candidateId: string, change: (candidate: CandidateView) => void, { dispatch, getState, queryFulfilled }: Lifecycle): Promise<void> {
  const pending = changePending(candidateId, change);
  const undo = patchCandidate(dispatch, getState, candidateId, change);
  try {
    const { data } = await queryFulfilled;
    pending.settled(nextRequest());
    // What else the server made of it: times and lines of moved ends. The state is left alone: a later key may have changed it.
    const { state: _, ...said } = data;
    patchCandidate(dispatch, getState, candidateId, (candidate) => {
      const { state, firstWord, endWord } = candidate;
      const newer = firstWord !== said.firstWord || endWord !== said.endWord;
      Object.assign(candidate, newer ? {} : said, { state });
    });
  } catch {
    pending.failed();
    undo();
  }
}

/** Changes a candidate in every loaded ranking. @returns how to take it back */
function patchCandidate(
  dispatch: (action: never) => unknown,
  getState: () => unknown,
  candidateId: string,
  change: (candidate: CandidateView) => void,
): () => void {
  const state = getState() as Parameters<typeof generatedApi.util.selectInvalidatedBy>[0];
  const undos: (() => void)[] = [];
  const patch = (action: unknown): void => {
    undos.push((dispatch(action as never) as { undo: () => void }).undo);
  };
  for (const { endpointName, originalArgs } of api.util.selectInvalidatedBy(state as never, ['Ranking'])) {
    if (endpointName !== 'readRanking') continue;
    const siftId = originalArgs as string;
    const ranking = api.endpoints.readRanking.select(siftId)(state as never).data;
    const before = ranking?.candidates.find((one) => one.id === candidateId);
    if (ranking === undefined || before === undefined) continue;
    const after = { ...before };
    change(after);
    patch(
      generatedApi.util.updateQueryData('readRanking', siftId, (draft) => {
        const candidate = draft.candidates.find((one) => one.id === candidateId);
        if (candidate !== undefined) change(candidate);
      }),
    );
    const by = Number(after.state === 'kept') - Number(before.state === 'kept');
    if (by === 0) continue;
    const { recordingId } = ranking.sift;
    const count = (sift: RecordingView['latestSift'] | SiftView | undefined): void => {
      if (sift?.id === siftId) sift.keptCount += by;
    };
    patch(generatedApi.util.updateQueryData('listRecordings', undefined, (draft) => count(draft.find((one) => one.id === recordingId)?.latestSift)));
    patch(generatedApi.util.updateQueryData('listSifts', recordingId, (draft) => count(draft.find((one) => one.id === siftId))));
  }
  return () => undos.reverse().forEach((undo) => undo());
}

export { baseApi };
export type * from './generated-api.js';

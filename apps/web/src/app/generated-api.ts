// Made from the API document by `npm run api-client`. Not written by hand.
import { baseApi as api } from './base-api.js';
export const addTagTypes = [
  'health',
  'identity',
  'clients',
  'recordings',
  'sifting',
  'shorts',
  'cutting',
  'translations',
  'feeds',
  'documents',
  'renders',
  'writing',
  'planning',
  'publishing',
] as const;
const injectedRtkApi = api
  .enhanceEndpoints({
    addTagTypes,
  })
  .injectEndpoints({
    endpoints: (build) => ({
      readHealth: build.query<ReadHealthApiResponse, ReadHealthApiArg>({
        query: () => ({ url: `/api/health` }),
        providesTags: ['health'],
      }),
      signIn: build.mutation<SignInApiResponse, SignInApiArg>({
        query: (queryArg) => ({
          url: `/api/session`,
          method: 'POST',
          body: queryArg,
        }),
        invalidatesTags: ['identity'],
      }),
      readSession: build.query<ReadSessionApiResponse, ReadSessionApiArg>({
        query: () => ({ url: `/api/session` }),
        providesTags: ['identity'],
      }),
      signOut: build.mutation<SignOutApiResponse, SignOutApiArg>({
        query: () => ({ url: `/api/session`, method: 'DELETE' }),
        invalidatesTags: ['identity'],
      }),
      changePassword: build.mutation<ChangePasswordApiResponse, ChangePasswordApiArg>({
        query: (queryArg) => ({
          url: `/api/session/password`,
          method: 'PUT',
          body: queryArg,
        }),
        invalidatesTags: ['identity'],
      }),
      readInvitation: build.query<ReadInvitationApiResponse, ReadInvitationApiArg>({
        query: (queryArg) => ({ url: `/api/invitations/${queryArg}` }),
        providesTags: ['identity'],
      }),
      acceptInvitation: build.mutation<AcceptInvitationApiResponse, AcceptInvitationApiArg>({
        query: (queryArg) => ({
          url: `/api/invitations/${queryArg.token}`,
          method: 'POST',
          body: queryArg.choosePasswordForm,
        }),
        invalidatesTags: ['identity'],
      }),
      listUsers: build.query<ListUsersApiResponse, ListUsersApiArg>({
        query: () => ({ url: `/api/users` }),
        providesTags: ['identity'],
      }),
      createUser: build.mutation<CreateUserApiResponse, CreateUserApiArg>({
        query: (queryArg) => ({
          url: `/api/users`,
          method: 'POST',
          body: queryArg,
        }),
        invalidatesTags: ['identity'],
      }),
      updateUser: build.mutation<UpdateUserApiResponse, UpdateUserApiArg>({
        query: (queryArg) => ({
          url: `/api/users/${queryArg.userId}`,
          method: 'PUT',
          body: queryArg.userForm,
        }),
        invalidatesTags: ['identity'],
      }),
      removeUser: build.mutation<RemoveUserApiResponse, RemoveUserApiArg>({
        query: (queryArg) => ({
          url: `/api/users/${queryArg}`,
          method: 'DELETE',
        }),
        invalidatesTags: ['identity'],
      }),
      inviteUser: build.mutation<InviteUserApiResponse, InviteUserApiArg>({
        query: (queryArg) => ({
          url: `/api/users/${queryArg}/invitation`,
          method: 'POST',
        }),
        invalidatesTags: ['identity'],
      }),
      listClients: build.query<ListClientsApiResponse, ListClientsApiArg>({
        query: () => ({ url: `/api/clients` }),
        providesTags: ['clients'],
      }),
      createClient: build.mutation<CreateClientApiResponse, CreateClientApiArg>({
        query: (queryArg) => ({
          url: `/api/clients`,
          method: 'POST',
          body: queryArg,
        }),
        invalidatesTags: ['clients'],
      }),
      updateClient: build.mutation<UpdateClientApiResponse, UpdateClientApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg.clientId}`,
          method: 'PUT',
          body: queryArg.clientChangeForm,
        }),
        invalidatesTags: ['clients'],
      }),
      archiveClient: build.mutation<ArchiveClientApiResponse, ArchiveClientApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg}`,
          method: 'DELETE',
        }),
        invalidatesTags: ['clients'],
      }),
      listArchivedClients: build.query<ListArchivedClientsApiResponse, ListArchivedClientsApiArg>({
        query: () => ({ url: `/api/archived-clients` }),
        providesTags: ['clients'],
      }),
      restoreClient: build.mutation<RestoreClientApiResponse, RestoreClientApiArg>({
        query: (queryArg) => ({
          url: `/api/archived-clients/${queryArg}/restore`,
          method: 'POST',
        }),
        invalidatesTags: ['clients'],
      }),
      listAgencyAudit: build.query<ListAgencyAuditApiResponse, ListAgencyAuditApiArg>({
        query: () => ({ url: `/api/audit` }),
        providesTags: ['clients'],
      }),
      setSignalWeights: build.mutation<SetSignalWeightsApiResponse, SetSignalWeightsApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg.clientId}/signal-weights`,
          method: 'PUT',
          body: queryArg.signalWeightsForm,
        }),
        invalidatesTags: ['clients'],
      }),
      setVoice: build.mutation<SetVoiceApiResponse, SetVoiceApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg.clientId}/voice`,
          method: 'PUT',
          body: queryArg.voiceForm,
        }),
        invalidatesTags: ['clients'],
      }),
      setCardStyle: build.mutation<SetCardStyleApiResponse, SetCardStyleApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg.clientId}/card-style`,
          method: 'PUT',
          body: queryArg.cardStyleForm,
        }),
        invalidatesTags: ['clients'],
      }),
      allowWriting: build.mutation<AllowWritingApiResponse, AllowWritingApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg.clientId}/writing-service`,
          method: 'PUT',
          body: queryArg.writingAllowedForm,
        }),
        invalidatesTags: ['clients'],
      }),
      setFilesKept: build.mutation<SetFilesKeptApiResponse, SetFilesKeptApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg.clientId}/files-kept`,
          method: 'PUT',
          body: queryArg.filesKeptForm,
        }),
        invalidatesTags: ['clients'],
      }),
      setLateness: build.mutation<SetLatenessApiResponse, SetLatenessApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg.clientId}/lateness`,
          method: 'PUT',
          body: queryArg.latenessForm,
        }),
        invalidatesTags: ['clients'],
      }),
      setComeAgain: build.mutation<SetComeAgainApiResponse, SetComeAgainApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg.clientId}/come-again`,
          method: 'PUT',
          body: queryArg.comeAgainForm,
        }),
        invalidatesTags: ['clients'],
      }),
      listInterest: build.query<ListInterestApiResponse, ListInterestApiArg>({
        query: (queryArg) => ({ url: `/api/clients/${queryArg}/interest` }),
        providesTags: ['clients'],
      }),
      setInterest: build.mutation<SetInterestApiResponse, SetInterestApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg.clientId}/interest`,
          method: 'PUT',
          body: queryArg.interestForm,
        }),
        invalidatesTags: ['clients'],
      }),
      listAudit: build.query<ListAuditApiResponse, ListAuditApiArg>({
        query: (queryArg) => ({ url: `/api/clients/${queryArg}/audit` }),
        providesTags: ['clients'],
      }),
      listChannels: build.query<ListChannelsApiResponse, ListChannelsApiArg>({
        query: () => ({ url: `/api/channels` }),
        providesTags: ['clients'],
      }),
      createChannel: build.mutation<CreateChannelApiResponse, CreateChannelApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg.clientId}/channels`,
          method: 'POST',
          body: queryArg.channelForm,
        }),
        invalidatesTags: ['clients'],
      }),
      updateChannel: build.mutation<UpdateChannelApiResponse, UpdateChannelApiArg>({
        query: (queryArg) => ({
          url: `/api/channels/${queryArg.channelId}`,
          method: 'PUT',
          body: queryArg.channelChangeForm,
        }),
        invalidatesTags: ['clients'],
      }),
      removeChannel: build.mutation<RemoveChannelApiResponse, RemoveChannelApiArg>({
        query: (queryArg) => ({
          url: `/api/channels/${queryArg}`,
          method: 'DELETE',
        }),
        invalidatesTags: ['clients'],
      }),
      listBlackouts: build.query<ListBlackoutsApiResponse, ListBlackoutsApiArg>({
        query: () => ({ url: `/api/blackouts` }),
        providesTags: ['clients'],
      }),
      createBlackout: build.mutation<CreateBlackoutApiResponse, CreateBlackoutApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg.clientId}/blackouts`,
          method: 'POST',
          body: queryArg.blackoutForm,
        }),
        invalidatesTags: ['clients'],
      }),
      removeBlackout: build.mutation<RemoveBlackoutApiResponse, RemoveBlackoutApiArg>({
        query: (queryArg) => ({
          url: `/api/blackouts/${queryArg}`,
          method: 'DELETE',
        }),
        invalidatesTags: ['clients'],
      }),
      listPlatformProfiles: build.query<ListPlatformProfilesApiResponse, ListPlatformProfilesApiArg>({
        query: () => ({ url: `/api/platform-profiles` }),
        providesTags: ['clients'],
      }),
      createPlatformProfile: build.mutation<CreatePlatformProfileApiResponse, CreatePlatformProfileApiArg>({
        query: (queryArg) => ({
          url: `/api/platform-profiles`,
          method: 'POST',
          body: queryArg,
        }),
        invalidatesTags: ['clients'],
      }),
      updatePlatformProfile: build.mutation<UpdatePlatformProfileApiResponse, UpdatePlatformProfileApiArg>({
        query: (queryArg) => ({
          url: `/api/platform-profiles/${queryArg.platformProfileId}`,
          method: 'PUT',
          body: queryArg.platformProfileChangeForm,
        }),
        invalidatesTags: ['clients'],
      }),
      listRecordings: build.query<ListRecordingsApiResponse, ListRecordingsApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings`,
          params: {
            clientId: queryArg,
          },
        }),
        providesTags: ['recordings'],
      }),
      readRecording: build.query<ReadRecordingApiResponse, ReadRecordingApiArg>({
        query: (queryArg) => ({ url: `/api/recordings/${queryArg}` }),
        providesTags: ['recordings'],
      }),
      renameRecording: build.mutation<RenameRecordingApiResponse, RenameRecordingApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings/${queryArg.recordingId}`,
          method: 'PUT',
          body: queryArg.recordingForm,
        }),
        invalidatesTags: ['recordings'],
      }),
      removeRecording: build.mutation<RemoveRecordingApiResponse, RemoveRecordingApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings/${queryArg}`,
          method: 'DELETE',
        }),
        invalidatesTags: ['recordings'],
      }),
      readTranscriptFile: build.mutation<ReadTranscriptFileApiResponse, ReadTranscriptFileApiArg>({
        query: (queryArg) => ({
          url: `/api/transcripts/reading`,
          method: 'POST',
          body: queryArg,
        }),
        invalidatesTags: ['recordings'],
      }),
      nameVoices: build.mutation<NameVoicesApiResponse, NameVoicesApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings/${queryArg.recordingId}/voices`,
          method: 'PUT',
          body: queryArg.voiceNamesForm,
        }),
        invalidatesTags: ['recordings'],
      }),
      chooseSoundTrack: build.mutation<ChooseSoundTrackApiResponse, ChooseSoundTrackApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings/${queryArg.recordingId}/sound-track`,
          method: 'PUT',
          body: queryArg.soundTrackForm,
        }),
        invalidatesTags: ['recordings'],
      }),
      readTranscript: build.query<ReadTranscriptApiResponse, ReadTranscriptApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings/${queryArg}/transcript`,
        }),
        providesTags: ['recordings'],
      }),
      readRepairs: build.query<ReadRepairsApiResponse, ReadRepairsApiArg>({
        query: (queryArg) => ({ url: `/api/recordings/${queryArg}/repairs` }),
        providesTags: ['recordings'],
      }),
      prepareAgain: build.mutation<PrepareAgainApiResponse, PrepareAgainApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings/${queryArg}/preparation`,
          method: 'POST',
        }),
        invalidatesTags: ['recordings'],
      }),
      readLevels: build.query<ReadLevelsApiResponse, ReadLevelsApiArg>({
        query: (queryArg) => ({ url: `/api/recordings/${queryArg}/levels` }),
        providesTags: ['recordings'],
      }),
      readProxy: build.query<ReadProxyApiResponse, ReadProxyApiArg>({
        query: (queryArg) => ({ url: `/api/preparations/${queryArg}/proxy` }),
        providesTags: ['recordings'],
      }),
      readSprite: build.query<ReadSpriteApiResponse, ReadSpriteApiArg>({
        query: (queryArg) => ({ url: `/api/preparations/${queryArg}/sprite` }),
        providesTags: ['recordings'],
      }),
      listSifts: build.query<ListSiftsApiResponse, ListSiftsApiArg>({
        query: (queryArg) => ({ url: `/api/recordings/${queryArg}/sifts` }),
        providesTags: ['sifting'],
      }),
      startSift: build.mutation<StartSiftApiResponse, StartSiftApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings/${queryArg.recordingId}/sifts`,
          method: 'POST',
          body: queryArg.briefForm,
        }),
        invalidatesTags: ['sifting'],
      }),
      searchRecording: build.query<SearchRecordingApiResponse, SearchRecordingApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings/${queryArg.recordingId}/search`,
          params: {
            q: queryArg.q,
          },
        }),
        providesTags: ['sifting'],
      }),
      addCandidate: build.mutation<AddCandidateApiResponse, AddCandidateApiArg>({
        query: (queryArg) => ({
          url: `/api/sifts/${queryArg.siftId}/candidates`,
          method: 'POST',
          body: queryArg.ownCandidateForm,
        }),
        invalidatesTags: ['sifting'],
      }),
      removeCandidate: build.mutation<RemoveCandidateApiResponse, RemoveCandidateApiArg>({
        query: (queryArg) => ({
          url: `/api/candidates/${queryArg}`,
          method: 'DELETE',
        }),
        invalidatesTags: ['sifting'],
      }),
      readSift: build.query<ReadSiftApiResponse, ReadSiftApiArg>({
        query: (queryArg) => ({ url: `/api/sifts/${queryArg}` }),
        providesTags: ['sifting'],
      }),
      readRanking: build.query<ReadRankingApiResponse, ReadRankingApiArg>({
        query: (queryArg) => ({ url: `/api/sifts/${queryArg}/ranking` }),
        providesTags: ['sifting'],
      }),
      cancelSift: build.mutation<CancelSiftApiResponse, CancelSiftApiArg>({
        query: (queryArg) => ({
          url: `/api/sifts/${queryArg}/cancel`,
          method: 'POST',
        }),
        invalidatesTags: ['sifting'],
      }),
      retrySift: build.mutation<RetrySiftApiResponse, RetrySiftApiArg>({
        query: (queryArg) => ({
          url: `/api/sifts/${queryArg}/retry`,
          method: 'POST',
        }),
        invalidatesTags: ['sifting'],
      }),
      setCandidateState: build.mutation<SetCandidateStateApiResponse, SetCandidateStateApiArg>({
        query: (queryArg) => ({
          url: `/api/candidates/${queryArg.candidateId}/state`,
          method: 'PUT',
          body: queryArg.candidateStateForm,
        }),
        invalidatesTags: ['sifting'],
      }),
      setCandidateSpan: build.mutation<SetCandidateSpanApiResponse, SetCandidateSpanApiArg>({
        query: (queryArg) => ({
          url: `/api/candidates/${queryArg.candidateId}/span`,
          method: 'PUT',
          body: queryArg.wordSpanForm,
        }),
        invalidatesTags: ['sifting'],
      }),
      listShorts: build.query<ListShortsApiResponse, ListShortsApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts`,
          params: {
            recordingId: queryArg.recordingId,
            clientId: queryArg.clientId,
          },
        }),
        providesTags: ['shorts'],
      }),
      readShort: build.query<ReadShortApiResponse, ReadShortApiArg>({
        query: (queryArg) => ({ url: `/api/shorts/${queryArg}` }),
        providesTags: ['shorts'],
      }),
      saveCopy: build.mutation<SaveCopyApiResponse, SaveCopyApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/copy`,
          method: 'PUT',
          body: queryArg.copyForm,
        }),
        invalidatesTags: ['shorts'],
      }),
      saveVariant: build.mutation<SaveVariantApiResponse, SaveVariantApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/copy/${queryArg.channelId}`,
          method: 'PUT',
          body: queryArg.copyForm,
        }),
        invalidatesTags: ['shorts'],
      }),
      dropVariant: build.mutation<DropVariantApiResponse, DropVariantApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/copy/${queryArg.channelId}`,
          method: 'DELETE',
          params: {
            version: queryArg.version,
          },
        }),
        invalidatesTags: ['shorts'],
      }),
      proposeCopy: build.mutation<ProposeCopyApiResponse, ProposeCopyApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/proposal`,
          method: 'POST',
          params: {
            channelId: queryArg.channelId,
          },
        }),
        invalidatesTags: ['shorts'],
      }),
      listCopyVersions: build.query<ListCopyVersionsApiResponse, ListCopyVersionsApiArg>({
        query: (queryArg) => ({ url: `/api/shorts/${queryArg}/history` }),
        providesTags: ['shorts'],
      }),
      readPassage: build.query<ReadPassageApiResponse, ReadPassageApiArg>({
        query: (queryArg) => ({ url: `/api/shorts/${queryArg}/passage` }),
        providesTags: ['shorts'],
      }),
      offerTitles: build.query<OfferTitlesApiResponse, OfferTitlesApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/titles`,
          params: {
            channelId: queryArg.channelId,
          },
        }),
        providesTags: ['shorts'],
      }),
      checkCopy: build.mutation<CheckCopyApiResponse, CheckCopyApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/check`,
          method: 'POST',
          body: queryArg.checkForm,
        }),
        invalidatesTags: ['shorts'],
      }),
      setEvergreen: build.mutation<SetEvergreenApiResponse, SetEvergreenApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/evergreen`,
          method: 'PUT',
          body: queryArg.evergreenForm,
        }),
        invalidatesTags: ['shorts'],
      }),
      setApproval: build.mutation<SetApprovalApiResponse, SetApprovalApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/approval`,
          method: 'PUT',
          body: queryArg.approvalForm,
        }),
        invalidatesTags: ['shorts'],
      }),
      readTalk: build.query<ReadTalkApiResponse, ReadTalkApiArg>({
        query: (queryArg) => ({ url: `/api/shorts/${queryArg}/talk` }),
        providesTags: ['cutting'],
      }),
      saveEdit: build.mutation<SaveEditApiResponse, SaveEditApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/edit`,
          method: 'PUT',
          body: queryArg.editForm,
        }),
        invalidatesTags: ['cutting'],
      }),
      proposeTightening: build.query<ProposeTighteningApiResponse, ProposeTighteningApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/tightening`,
          params: {
            pauseMs: queryArg.pauseMs,
            paddingMs: queryArg.paddingMs,
          },
        }),
        providesTags: ['cutting'],
      }),
      drawFrames: build.query<DrawFramesApiResponse, DrawFramesApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/frames`,
          params: {
            shape: queryArg.shape,
          },
        }),
        providesTags: ['cutting'],
      }),
      keepReel: build.mutation<KeepReelApiResponse, KeepReelApiArg>({
        query: (queryArg) => ({
          url: `/api/sifts/${queryArg.siftId}/reel`,
          method: 'POST',
          body: queryArg.reelForm,
        }),
        invalidatesTags: ['cutting'],
      }),
      readEditList: build.mutation<ReadEditListApiResponse, ReadEditListApiArg>({
        query: (queryArg) => ({
          url: `/api/sifts/${queryArg.siftId}/edit-list`,
          method: 'POST',
          body: queryArg.editListForm,
        }),
        invalidatesTags: ['cutting'],
      }),
      keepPassages: build.mutation<KeepPassagesApiResponse, KeepPassagesApiArg>({
        query: (queryArg) => ({
          url: `/api/sifts/${queryArg.siftId}/passages`,
          method: 'POST',
          body: queryArg.keepPassagesForm,
        }),
        invalidatesTags: ['cutting'],
      }),
      listTranslations: build.query<ListTranslationsApiResponse, ListTranslationsApiArg>({
        query: (queryArg) => ({ url: `/api/shorts/${queryArg}/translations` }),
        providesTags: ['translations'],
      }),
      readTranslation: build.query<ReadTranslationApiResponse, ReadTranslationApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/translations/${queryArg.language}`,
        }),
        providesTags: ['translations'],
      }),
      saveTranslation: build.mutation<SaveTranslationApiResponse, SaveTranslationApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/translations/${queryArg.language}`,
          method: 'PUT',
          body: queryArg.translationForm,
        }),
        invalidatesTags: ['translations'],
      }),
      removeTranslation: build.mutation<RemoveTranslationApiResponse, RemoveTranslationApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/translations/${queryArg.language}`,
          method: 'DELETE',
          params: {
            version: queryArg.version,
          },
        }),
        invalidatesTags: ['translations'],
      }),
      draftTranslation: build.mutation<DraftTranslationApiResponse, DraftTranslationApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/translations/${queryArg.language}/draft`,
          method: 'POST',
          body: queryArg.translationSeenForm,
        }),
        invalidatesTags: ['translations'],
      }),
      setTranslationRead: build.mutation<SetTranslationReadApiResponse, SetTranslationReadApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/translations/${queryArg.language}/reading`,
          method: 'PUT',
          body: queryArg.translationReadForm,
        }),
        invalidatesTags: ['translations'],
      }),
      importXliff: build.mutation<ImportXliffApiResponse, ImportXliffApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/xliff`,
          method: 'POST',
          body: queryArg.xliffForm,
        }),
        invalidatesTags: ['translations'],
      }),
      listenForWords: build.mutation<ListenForWordsApiResponse, ListenForWordsApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings/${queryArg.recordingId}/alignment`,
          method: 'POST',
          body: queryArg.alignmentForm,
        }),
        invalidatesTags: ['recordings'],
      }),
      stopListening: build.mutation<StopListeningApiResponse, StopListeningApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings/${queryArg}/alignment`,
          method: 'DELETE',
        }),
        invalidatesTags: ['recordings'],
      }),
      listFeeds: build.query<ListFeedsApiResponse, ListFeedsApiArg>({
        query: () => ({ url: `/api/feeds` }),
        providesTags: ['feeds'],
      }),
      followFeed: build.mutation<FollowFeedApiResponse, FollowFeedApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg.clientId}/feeds`,
          method: 'POST',
          body: queryArg.feedForm,
        }),
        invalidatesTags: ['feeds'],
      }),
      changeFeed: build.mutation<ChangeFeedApiResponse, ChangeFeedApiArg>({
        query: (queryArg) => ({
          url: `/api/feeds/${queryArg.feedId}`,
          method: 'PUT',
          body: queryArg.feedChangeForm,
        }),
        invalidatesTags: ['feeds'],
      }),
      leaveFeed: build.mutation<LeaveFeedApiResponse, LeaveFeedApiArg>({
        query: (queryArg) => ({
          url: `/api/feeds/${queryArg}`,
          method: 'DELETE',
        }),
        invalidatesTags: ['feeds'],
      }),
      readFeedNow: build.mutation<ReadFeedNowApiResponse, ReadFeedNowApiArg>({
        query: (queryArg) => ({
          url: `/api/feeds/${queryArg}/reading`,
          method: 'POST',
        }),
        invalidatesTags: ['feeds'],
      }),
      listEpisodes: build.query<ListEpisodesApiResponse, ListEpisodesApiArg>({
        query: (queryArg) => ({ url: `/api/feeds/${queryArg}/episodes` }),
        providesTags: ['feeds'],
      }),
      listNewEpisodes: build.query<ListNewEpisodesApiResponse, ListNewEpisodesApiArg>({
        query: () => ({ url: `/api/new-episodes` }),
        providesTags: ['feeds'],
      }),
      takeInEpisode: build.mutation<TakeInEpisodeApiResponse, TakeInEpisodeApiArg>({
        query: (queryArg) => ({
          url: `/api/episodes/${queryArg.episodeId}/recording`,
          method: 'POST',
          body: queryArg.takeInForm,
        }),
        invalidatesTags: ['feeds'],
      }),
      fetchLink: build.mutation<FetchLinkApiResponse, FetchLinkApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg.clientId}/links`,
          method: 'POST',
          body: queryArg.linkForm,
        }),
        invalidatesTags: ['feeds'],
      }),
      fetchAgain: build.mutation<FetchAgainApiResponse, FetchAgainApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings/${queryArg}/fetch`,
          method: 'POST',
        }),
        invalidatesTags: ['feeds'],
      }),
      stopFetch: build.mutation<StopFetchApiResponse, StopFetchApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings/${queryArg}/fetch`,
          method: 'DELETE',
        }),
        invalidatesTags: ['feeds'],
      }),
      listDocuments: build.query<ListDocumentsApiResponse, ListDocumentsApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings/${queryArg}/documents`,
        }),
        providesTags: ['documents'],
      }),
      makeDocument: build.mutation<MakeDocumentApiResponse, MakeDocumentApiArg>({
        query: (queryArg) => ({
          url: `/api/recordings/${queryArg.recordingId}/documents`,
          method: 'POST',
          body: queryArg.newDocumentForm,
        }),
        invalidatesTags: ['documents'],
      }),
      readDocument: build.query<ReadDocumentApiResponse, ReadDocumentApiArg>({
        query: (queryArg) => ({ url: `/api/documents/${queryArg}` }),
        providesTags: ['documents'],
      }),
      saveDocument: build.mutation<SaveDocumentApiResponse, SaveDocumentApiArg>({
        query: (queryArg) => ({
          url: `/api/documents/${queryArg.documentId}`,
          method: 'PUT',
          body: queryArg.documentForm,
        }),
        invalidatesTags: ['documents'],
      }),
      removeDocument: build.mutation<RemoveDocumentApiResponse, RemoveDocumentApiArg>({
        query: (queryArg) => ({
          url: `/api/documents/${queryArg.documentId}`,
          method: 'DELETE',
          params: {
            version: queryArg.version,
          },
        }),
        invalidatesTags: ['documents'],
      }),
      makeDocumentAgain: build.mutation<MakeDocumentAgainApiResponse, MakeDocumentAgainApiArg>({
        query: (queryArg) => ({
          url: `/api/documents/${queryArg.documentId}/proposal`,
          method: 'PUT',
          body: queryArg.documentSeenForm,
        }),
        invalidatesTags: ['documents'],
      }),
      listDocumentVersions: build.query<ListDocumentVersionsApiResponse, ListDocumentVersionsApiArg>({
        query: (queryArg) => ({ url: `/api/documents/${queryArg}/versions` }),
        providesTags: ['documents'],
      }),
      listRenders: build.query<ListRendersApiResponse, ListRendersApiArg>({
        query: (queryArg) => ({ url: `/api/shorts/${queryArg}/renders` }),
        providesTags: ['renders'],
      }),
      askForRender: build.mutation<AskForRenderApiResponse, AskForRenderApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg.shortId}/renders`,
          method: 'POST',
          body: queryArg.renderForm,
        }),
        invalidatesTags: ['renders'],
      }),
      listGoingFiles: build.query<ListGoingFilesApiResponse, ListGoingFilesApiArg>({
        query: () => ({ url: `/api/files-going` }),
        providesTags: ['renders'],
      }),
      keepFileLonger: build.mutation<KeepFileLongerApiResponse, KeepFileLongerApiArg>({
        query: (queryArg) => ({
          url: `/api/renders/${queryArg}/keeping`,
          method: 'PUT',
        }),
        invalidatesTags: ['renders'],
      }),
      listReady: build.query<ListReadyApiResponse, ListReadyApiArg>({
        query: (queryArg) => ({
          url: `/api/renders/ready`,
          params: {
            shape: queryArg.shape,
            shortIds: queryArg.shortIds,
            platformProfileId: queryArg.platformProfileId,
          },
        }),
        providesTags: ['renders'],
      }),
      readArchive: build.query<ReadArchiveApiResponse, ReadArchiveApiArg>({
        query: (queryArg) => ({
          url: `/api/renders/files.zip`,
          params: {
            shape: queryArg.shape,
            shortIds: queryArg.shortIds,
            platformProfileId: queryArg.platformProfileId,
          },
        }),
        providesTags: ['renders'],
      }),
      cancelRender: build.mutation<CancelRenderApiResponse, CancelRenderApiArg>({
        query: (queryArg) => ({
          url: `/api/renders/${queryArg}`,
          method: 'DELETE',
        }),
        invalidatesTags: ['renders'],
      }),
      readRender: build.query<ReadRenderApiResponse, ReadRenderApiArg>({
        query: (queryArg) => ({ url: `/api/renders/${queryArg}/file` }),
        providesTags: ['renders'],
      }),
      readWritingService: build.query<ReadWritingServiceApiResponse, ReadWritingServiceApiArg>({
        query: () => ({ url: `/api/writing-service` }),
        providesTags: ['writing'],
      }),
      listWritings: build.query<ListWritingsApiResponse, ListWritingsApiArg>({
        query: (queryArg) => ({ url: `/api/shorts/${queryArg}/writings` }),
        providesTags: ['writing'],
      }),
      askForWords: build.mutation<AskForWordsApiResponse, AskForWordsApiArg>({
        query: (queryArg) => ({
          url: `/api/shorts/${queryArg}/writings`,
          method: 'POST',
        }),
        invalidatesTags: ['writing'],
      }),
      cancelWriting: build.mutation<CancelWritingApiResponse, CancelWritingApiArg>({
        query: (queryArg) => ({
          url: `/api/writings/${queryArg}`,
          method: 'DELETE',
        }),
        invalidatesTags: ['writing'],
      }),
      listBatches: build.query<ListBatchesApiResponse, ListBatchesApiArg>({
        query: () => ({ url: `/api/batches` }),
        providesTags: ['planning'],
      }),
      createBatch: build.mutation<CreateBatchApiResponse, CreateBatchApiArg>({
        query: (queryArg) => ({
          url: `/api/batches`,
          method: 'POST',
          body: queryArg,
        }),
        invalidatesTags: ['planning'],
      }),
      updateBatch: build.mutation<UpdateBatchApiResponse, UpdateBatchApiArg>({
        query: (queryArg) => ({
          url: `/api/batches/${queryArg.batchId}`,
          method: 'PUT',
          body: queryArg.batchChangeForm,
        }),
        invalidatesTags: ['planning'],
      }),
      removeBatch: build.mutation<RemoveBatchApiResponse, RemoveBatchApiArg>({
        query: (queryArg) => ({
          url: `/api/batches/${queryArg}`,
          method: 'DELETE',
        }),
        invalidatesTags: ['planning'],
      }),
      readSchedule: build.query<ReadScheduleApiResponse, ReadScheduleApiArg>({
        query: () => ({ url: `/api/schedule` }),
        providesTags: ['planning'],
      }),
      proposePlan: build.mutation<ProposePlanApiResponse, ProposePlanApiArg>({
        query: (queryArg) => ({
          url: `/api/schedule/proposals`,
          method: 'POST',
          body: queryArg,
        }),
        invalidatesTags: ['planning'],
      }),
      readPlanFile: build.mutation<ReadPlanFileApiResponse, ReadPlanFileApiArg>({
        query: (queryArg) => ({
          url: `/api/schedule/readings`,
          method: 'POST',
          body: queryArg,
        }),
        invalidatesTags: ['planning'],
      }),
      acceptPlan: build.mutation<AcceptPlanApiResponse, AcceptPlanApiArg>({
        query: (queryArg) => ({
          url: `/api/schedule/posts`,
          method: 'POST',
          body: queryArg,
        }),
        invalidatesTags: ['planning'],
      }),
      movePost: build.mutation<MovePostApiResponse, MovePostApiArg>({
        query: (queryArg) => ({
          url: `/api/posts/${queryArg.postId}/place`,
          method: 'PUT',
          body: queryArg.movePostForm,
        }),
        invalidatesTags: ['planning'],
      }),
      movePosts: build.mutation<MovePostsApiResponse, MovePostsApiArg>({
        query: (queryArg) => ({
          url: `/api/posts/places`,
          method: 'PUT',
          body: queryArg,
        }),
        invalidatesTags: ['planning'],
      }),
      setPostsMovable: build.mutation<SetPostsMovableApiResponse, SetPostsMovableApiArg>({
        query: (queryArg) => ({
          url: `/api/posts/movable`,
          method: 'PUT',
          body: queryArg,
        }),
        invalidatesTags: ['planning'],
      }),
      setPostState: build.mutation<SetPostStateApiResponse, SetPostStateApiArg>({
        query: (queryArg) => ({
          url: `/api/posts/${queryArg.postId}/state`,
          method: 'PUT',
          body: queryArg.postStateForm,
        }),
        invalidatesTags: ['planning'],
      }),
      takeOffPost: build.mutation<TakeOffPostApiResponse, TakeOffPostApiArg>({
        query: (queryArg) => ({
          url: `/api/posts/${queryArg}`,
          method: 'DELETE',
        }),
        invalidatesTags: ['planning'],
      }),
      listCalendars: build.query<ListCalendarsApiResponse, ListCalendarsApiArg>({
        query: (queryArg) => ({ url: `/api/clients/${queryArg}/calendars` }),
        providesTags: ['planning'],
      }),
      createCalendar: build.mutation<CreateCalendarApiResponse, CreateCalendarApiArg>({
        query: (queryArg) => ({
          url: `/api/clients/${queryArg.clientId}/calendars`,
          method: 'POST',
          body: queryArg.calendarForm,
        }),
        invalidatesTags: ['planning'],
      }),
      withdrawCalendar: build.mutation<WithdrawCalendarApiResponse, WithdrawCalendarApiArg>({
        query: (queryArg) => ({
          url: `/api/calendars/${queryArg}`,
          method: 'DELETE',
        }),
        invalidatesTags: ['planning'],
      }),
      readCalendar: build.query<ReadCalendarApiResponse, ReadCalendarApiArg>({
        query: (queryArg) => ({ url: `/api/calendar/${queryArg}.ics` }),
        providesTags: ['planning'],
      }),
      readPosting: build.query<ReadPostingApiResponse, ReadPostingApiArg>({
        query: () => ({ url: `/api/posting` }),
        providesTags: ['publishing'],
      }),
      setStop: build.mutation<SetStopApiResponse, SetStopApiArg>({
        query: (queryArg) => ({
          url: `/api/posting/stops`,
          method: 'PUT',
          body: queryArg,
        }),
        invalidatesTags: ['publishing'],
      }),
      beginConnecting: build.mutation<BeginConnectingApiResponse, BeginConnectingApiArg>({
        query: (queryArg) => ({
          url: `/api/channels/${queryArg}/connecting`,
          method: 'POST',
        }),
        invalidatesTags: ['publishing'],
      }),
      chooseAccount: build.mutation<ChooseAccountApiResponse, ChooseAccountApiArg>({
        query: (queryArg) => ({
          url: `/api/channels/${queryArg.channelId}/account`,
          method: 'PUT',
          body: queryArg.channelAccountForm,
        }),
        invalidatesTags: ['publishing'],
      }),
      finishConnecting: build.mutation<FinishConnectingApiResponse, FinishConnectingApiArg>({
        query: (queryArg) => ({
          url: `/api/accounts`,
          method: 'POST',
          body: queryArg,
        }),
        invalidatesTags: ['publishing'],
      }),
      disconnectAccount: build.mutation<DisconnectAccountApiResponse, DisconnectAccountApiArg>({
        query: (queryArg) => ({
          url: `/api/accounts/${queryArg}`,
          method: 'DELETE',
        }),
        invalidatesTags: ['publishing'],
      }),
      readSending: build.query<ReadSendingApiResponse, ReadSendingApiArg>({
        query: (queryArg) => ({ url: `/api/posts/${queryArg}/sending` }),
        providesTags: ['publishing'],
      }),
      sendAgain: build.mutation<SendAgainApiResponse, SendAgainApiArg>({
        query: (queryArg) => ({
          url: `/api/posts/${queryArg.postId}/sending`,
          method: 'POST',
          body: queryArg.postSeenForm,
        }),
        invalidatesTags: ['publishing'],
      }),
      tellOutcome: build.mutation<TellOutcomeApiResponse, TellOutcomeApiArg>({
        query: (queryArg) => ({
          url: `/api/posts/${queryArg.postId}/outcome`,
          method: 'PUT',
          body: queryArg.outcomeForm,
        }),
        invalidatesTags: ['publishing'],
      }),
      correctPost: build.mutation<CorrectPostApiResponse, CorrectPostApiArg>({
        query: (queryArg) => ({
          url: `/api/posts/${queryArg.postId}/words`,
          method: 'PUT',
          body: queryArg.postedWordsForm,
        }),
        invalidatesTags: ['publishing'],
      }),
      takePostDown: build.mutation<TakePostDownApiResponse, TakePostDownApiArg>({
        query: (queryArg) => ({
          url: `/api/posts/${queryArg.postId}/publication`,
          method: 'DELETE',
          params: {
            version: queryArg.version,
          },
        }),
        invalidatesTags: ['publishing'],
      }),
    }),
    overrideExisting: false,
  });
export { injectedRtkApi as generatedApi };
export type ReadHealthApiResponse = /** status 200  */ HealthView;
export type ReadHealthApiArg = void;
export type SignInApiResponse = /** status 201  */ SessionView;
export type SignInApiArg = SignInForm;
export type ReadSessionApiResponse = /** status 200  */ SessionView;
export type ReadSessionApiArg = void;
export type SignOutApiResponse = unknown;
export type SignOutApiArg = void;
export type ChangePasswordApiResponse = /** status 200  */ SessionView;
export type ChangePasswordApiArg = ChangePasswordForm;
export type ReadInvitationApiResponse = /** status 200  */ InvitationView;
export type ReadInvitationApiArg = string;
export type AcceptInvitationApiResponse = /** status 201  */ SessionView;
export type AcceptInvitationApiArg = {
  token: string;
  choosePasswordForm: ChoosePasswordForm;
};
export type ListUsersApiResponse = /** status 200  */ UserView[];
export type ListUsersApiArg = void;
export type CreateUserApiResponse = /** status 201  */ InvitedUserView;
export type CreateUserApiArg = NewUserForm;
export type UpdateUserApiResponse = /** status 200  */ UserView;
export type UpdateUserApiArg = {
  userId: string;
  userForm: UserForm;
};
export type RemoveUserApiResponse = unknown;
export type RemoveUserApiArg = string;
export type InviteUserApiResponse = /** status 201  */ InvitedUserView;
export type InviteUserApiArg = string;
export type ListClientsApiResponse = /** status 200  */ ClientView[];
export type ListClientsApiArg = void;
export type CreateClientApiResponse = /** status 201  */ ClientView;
export type CreateClientApiArg = ClientForm;
export type UpdateClientApiResponse = /** status 200  */ ClientView;
export type UpdateClientApiArg = {
  clientId: string;
  clientChangeForm: ClientChangeForm;
};
export type ArchiveClientApiResponse = unknown;
export type ArchiveClientApiArg = string;
export type ListArchivedClientsApiResponse = /** status 200  */ ArchivedClientView[];
export type ListArchivedClientsApiArg = void;
export type RestoreClientApiResponse = /** status 200  */ ClientView;
export type RestoreClientApiArg = string;
export type ListAgencyAuditApiResponse = /** status 200  */ AuditView[];
export type ListAgencyAuditApiArg = void;
export type SetSignalWeightsApiResponse = /** status 200  */ ClientView;
export type SetSignalWeightsApiArg = {
  clientId: string;
  signalWeightsForm: SignalWeightsForm;
};
export type SetVoiceApiResponse = /** status 200  */ ClientView;
export type SetVoiceApiArg = {
  clientId: string;
  voiceForm: VoiceForm;
};
export type SetCardStyleApiResponse = /** status 200  */ ClientView;
export type SetCardStyleApiArg = {
  clientId: string;
  cardStyleForm: CardStyleForm;
};
export type AllowWritingApiResponse = /** status 200  */ ClientView;
export type AllowWritingApiArg = {
  clientId: string;
  writingAllowedForm: WritingAllowedForm;
};
export type SetFilesKeptApiResponse = /** status 200  */ ClientView;
export type SetFilesKeptApiArg = {
  clientId: string;
  filesKeptForm: FilesKeptForm;
};
export type SetLatenessApiResponse = /** status 200  */ ClientView;
export type SetLatenessApiArg = {
  clientId: string;
  latenessForm: LatenessForm;
};
export type SetComeAgainApiResponse = /** status 200  */ ClientView;
export type SetComeAgainApiArg = {
  clientId: string;
  comeAgainForm: ComeAgainForm;
};
export type ListInterestApiResponse = /** status 200  */ InterestTermView[];
export type ListInterestApiArg = string;
export type SetInterestApiResponse = /** status 200  */ InterestTermView[];
export type SetInterestApiArg = {
  clientId: string;
  interestForm: InterestForm;
};
export type ListAuditApiResponse = /** status 200  */ AuditView[];
export type ListAuditApiArg = string;
export type ListChannelsApiResponse = /** status 200  */ ChannelView[];
export type ListChannelsApiArg = void;
export type CreateChannelApiResponse = /** status 201  */ ChannelView;
export type CreateChannelApiArg = {
  clientId: string;
  channelForm: ChannelForm;
};
export type UpdateChannelApiResponse = /** status 200  */ ChannelView;
export type UpdateChannelApiArg = {
  channelId: string;
  channelChangeForm: ChannelChangeForm;
};
export type RemoveChannelApiResponse = unknown;
export type RemoveChannelApiArg = string;
export type ListBlackoutsApiResponse = /** status 200  */ BlackoutView[];
export type ListBlackoutsApiArg = void;
export type CreateBlackoutApiResponse = /** status 201  */ BlackoutView;
export type CreateBlackoutApiArg = {
  clientId: string;
  blackoutForm: BlackoutForm;
};
export type RemoveBlackoutApiResponse = unknown;
export type RemoveBlackoutApiArg = string;
export type ListPlatformProfilesApiResponse = /** status 200  */ PlatformProfileView[];
export type ListPlatformProfilesApiArg = void;
export type CreatePlatformProfileApiResponse = /** status 201  */ PlatformProfileView;
export type CreatePlatformProfileApiArg = PlatformProfileForm;
export type UpdatePlatformProfileApiResponse = /** status 200  */ PlatformProfileView;
export type UpdatePlatformProfileApiArg = {
  platformProfileId: string;
  platformProfileChangeForm: PlatformProfileChangeForm;
};
export type ListRecordingsApiResponse = /** status 200  */ RecordingView[];
export type ListRecordingsApiArg = string | undefined;
export type ReadRecordingApiResponse = /** status 200  */ RecordingView;
export type ReadRecordingApiArg = string;
export type RenameRecordingApiResponse = /** status 200  */ RecordingView;
export type RenameRecordingApiArg = {
  recordingId: string;
  recordingForm: RecordingForm;
};
export type RemoveRecordingApiResponse = unknown;
export type RemoveRecordingApiArg = string;
export type ReadTranscriptFileApiResponse = /** status 200  */ TranscriptReadingView;
export type ReadTranscriptFileApiArg = {
  transcript?: Blob;
};
export type NameVoicesApiResponse = /** status 200  */ RecordingView;
export type NameVoicesApiArg = {
  recordingId: string;
  voiceNamesForm: VoiceNamesForm;
};
export type ChooseSoundTrackApiResponse = /** status 200  */ RecordingView;
export type ChooseSoundTrackApiArg = {
  recordingId: string;
  soundTrackForm: SoundTrackForm;
};
export type ReadTranscriptApiResponse = /** status 200  */ PackedTranscriptView;
export type ReadTranscriptApiArg = string;
export type ReadRepairsApiResponse = /** status 200  */ RepairsView;
export type ReadRepairsApiArg = string;
export type PrepareAgainApiResponse = /** status 202  */ PreparationView;
export type PrepareAgainApiArg = string;
export type ReadLevelsApiResponse = /** status 200  */ SoundLevelsView;
export type ReadLevelsApiArg = string;
export type ReadProxyApiResponse = unknown;
export type ReadProxyApiArg = string;
export type ReadSpriteApiResponse = unknown;
export type ReadSpriteApiArg = string;
export type ListSiftsApiResponse = /** status 200  */ SiftView[];
export type ListSiftsApiArg = string;
export type StartSiftApiResponse = /** status 201  */ SiftView;
export type StartSiftApiArg = {
  recordingId: string;
  briefForm: BriefForm;
};
export type SearchRecordingApiResponse = /** status 200  */ SearchView;
export type SearchRecordingApiArg = {
  recordingId: string;
  q: string;
};
export type AddCandidateApiResponse = /** status 201  */ CandidateView;
export type AddCandidateApiArg = {
  siftId: string;
  ownCandidateForm: OwnCandidateForm;
};
export type RemoveCandidateApiResponse = unknown;
export type RemoveCandidateApiArg = string;
export type ReadSiftApiResponse = /** status 200  */ SiftView;
export type ReadSiftApiArg = string;
export type ReadRankingApiResponse = /** status 200  */ RankingView;
export type ReadRankingApiArg = string;
export type CancelSiftApiResponse = /** status 200  */ SiftView;
export type CancelSiftApiArg = string;
export type RetrySiftApiResponse = /** status 200  */ SiftView;
export type RetrySiftApiArg = string;
export type SetCandidateStateApiResponse = /** status 200  */ CandidateView;
export type SetCandidateStateApiArg = {
  candidateId: string;
  candidateStateForm: CandidateStateForm;
};
export type SetCandidateSpanApiResponse = /** status 200  */ CandidateView;
export type SetCandidateSpanApiArg = {
  candidateId: string;
  wordSpanForm: WordSpanForm;
};
export type ListShortsApiResponse = /** status 200  */ ShortView[];
export type ListShortsApiArg = {
  recordingId?: string;
  clientId?: string;
};
export type ReadShortApiResponse = /** status 200  */ ShortView;
export type ReadShortApiArg = string;
export type SaveCopyApiResponse = /** status 200  */ ShortView;
export type SaveCopyApiArg = {
  shortId: string;
  copyForm: CopyForm;
};
export type SaveVariantApiResponse = /** status 200  */ ShortView;
export type SaveVariantApiArg = {
  shortId: string;
  channelId: string;
  copyForm: CopyForm;
};
export type DropVariantApiResponse = /** status 200  */ ShortView;
export type DropVariantApiArg = {
  shortId: string;
  channelId: string;
  /** The version that was seen */
  version: number;
};
export type ProposeCopyApiResponse = /** status 200  */ CopyView;
export type ProposeCopyApiArg = {
  shortId: string;
  channelId?: string;
};
export type ListCopyVersionsApiResponse = /** status 200  */ CopyVersionView[];
export type ListCopyVersionsApiArg = string;
export type ReadPassageApiResponse = /** status 200  */ PassageView;
export type ReadPassageApiArg = string;
export type OfferTitlesApiResponse = /** status 200  */ TitleView[];
export type OfferTitlesApiArg = {
  shortId: string;
  channelId?: string;
};
export type CheckCopyApiResponse = /** status 200  */ CheckView;
export type CheckCopyApiArg = {
  shortId: string;
  checkForm: CheckForm;
};
export type SetEvergreenApiResponse = /** status 200  */ ShortView;
export type SetEvergreenApiArg = {
  shortId: string;
  evergreenForm: EvergreenForm;
};
export type SetApprovalApiResponse = /** status 200  */ ShortView;
export type SetApprovalApiArg = {
  shortId: string;
  approvalForm: ApprovalForm;
};
export type ReadTalkApiResponse = /** status 200  */ TalkAroundView;
export type ReadTalkApiArg = string;
export type SaveEditApiResponse = /** status 200  */ ShortView;
export type SaveEditApiArg = {
  shortId: string;
  editForm: EditForm;
};
export type ProposeTighteningApiResponse = /** status 200  */ TighteningView[];
export type ProposeTighteningApiArg = {
  shortId: string;
  /** Longer silences are cut down, in ms */
  pauseMs?: number;
  /** What stays of them on each side, in ms */
  paddingMs?: number;
};
export type DrawFramesApiResponse = /** status 200  */ FramesView;
export type DrawFramesApiArg = {
  shortId: string;
  shape: 'vertical' | 'square' | 'portrait' | 'wide';
};
export type KeepReelApiResponse = /** status 201  */ ShortView;
export type KeepReelApiArg = {
  siftId: string;
  reelForm: ReelForm;
};
export type ReadEditListApiResponse = /** status 200 What an edit list plays; nothing is kept of it */ EditListView;
export type ReadEditListApiArg = {
  siftId: string;
  editListForm: EditListForm;
};
export type KeepPassagesApiResponse = /** status 201  */ ShortView[];
export type KeepPassagesApiArg = {
  siftId: string;
  keepPassagesForm: KeepPassagesForm;
};
export type ListTranslationsApiResponse = /** status 200  */ TranslationView[];
export type ListTranslationsApiArg = string;
export type ReadTranslationApiResponse = /** status 200  */ TranslationView;
export type ReadTranslationApiArg = {
  shortId: string;
  language: string;
};
export type SaveTranslationApiResponse = /** status 200  */ TranslationView;
export type SaveTranslationApiArg = {
  shortId: string;
  language: string;
  translationForm: TranslationForm;
};
export type RemoveTranslationApiResponse = unknown;
export type RemoveTranslationApiArg = {
  shortId: string;
  language: string;
  /** The version that was seen */
  version: number;
};
export type DraftTranslationApiResponse = /** status 200  */ TranslationView;
export type DraftTranslationApiArg = {
  shortId: string;
  language: string;
  translationSeenForm: TranslationSeenForm;
};
export type SetTranslationReadApiResponse = /** status 200  */ TranslationView;
export type SetTranslationReadApiArg = {
  shortId: string;
  language: string;
  translationReadForm: TranslationReadForm;
};
export type ImportXliffApiResponse = /** status 200 The translation that came back, checked */ TranslationView;
export type ImportXliffApiArg = {
  shortId: string;
  xliffForm: XliffForm;
};
export type ListenForWordsApiResponse = /** status 202  */ AlignmentView;
export type ListenForWordsApiArg = {
  recordingId: string;
  alignmentForm: AlignmentForm;
};
export type StopListeningApiResponse = unknown;
export type StopListeningApiArg = string;
export type ListFeedsApiResponse = /** status 200  */ FeedView[];
export type ListFeedsApiArg = void;
export type FollowFeedApiResponse = /** status 201  */ FeedView;
export type FollowFeedApiArg = {
  clientId: string;
  feedForm: FeedForm;
};
export type ChangeFeedApiResponse = /** status 200  */ FeedView;
export type ChangeFeedApiArg = {
  feedId: string;
  feedChangeForm: FeedChangeForm;
};
export type LeaveFeedApiResponse = unknown;
export type LeaveFeedApiArg = string;
export type ReadFeedNowApiResponse = /** status 200  */ FeedView;
export type ReadFeedNowApiArg = string;
export type ListEpisodesApiResponse = /** status 200  */ EpisodeView[];
export type ListEpisodesApiArg = string;
export type ListNewEpisodesApiResponse = /** status 200  */ EpisodeView[];
export type ListNewEpisodesApiArg = void;
export type TakeInEpisodeApiResponse = /** status 201  */ RecordingView;
export type TakeInEpisodeApiArg = {
  episodeId: string;
  takeInForm: TakeInForm;
};
export type FetchLinkApiResponse = /** status 201  */ RecordingView;
export type FetchLinkApiArg = {
  clientId: string;
  linkForm: LinkForm;
};
export type FetchAgainApiResponse = /** status 200  */ RecordingView;
export type FetchAgainApiArg = string;
export type StopFetchApiResponse = /** status 200  */ RecordingView;
export type StopFetchApiArg = string;
export type ListDocumentsApiResponse = /** status 200  */ DocumentEntryView[];
export type ListDocumentsApiArg = string;
export type MakeDocumentApiResponse = /** status 201  */ DocumentView;
export type MakeDocumentApiArg = {
  recordingId: string;
  newDocumentForm: NewDocumentForm;
};
export type ReadDocumentApiResponse = /** status 200  */ DocumentView;
export type ReadDocumentApiArg = string;
export type SaveDocumentApiResponse = /** status 200  */ DocumentView;
export type SaveDocumentApiArg = {
  documentId: string;
  documentForm: DocumentForm;
};
export type RemoveDocumentApiResponse = unknown;
export type RemoveDocumentApiArg = {
  documentId: string;
  /** The version that was seen */
  version: number;
};
export type MakeDocumentAgainApiResponse = /** status 200  */ DocumentView;
export type MakeDocumentAgainApiArg = {
  documentId: string;
  documentSeenForm: DocumentSeenForm;
};
export type ListDocumentVersionsApiResponse = /** status 200  */ DocumentVersionView[];
export type ListDocumentVersionsApiArg = string;
export type ListRendersApiResponse = /** status 200  */ RenderView[];
export type ListRendersApiArg = string;
export type AskForRenderApiResponse = /** status 201  */ RenderView;
export type AskForRenderApiArg = {
  shortId: string;
  renderForm: RenderForm;
};
export type ListGoingFilesApiResponse = /** status 200  */ GoingFileView[];
export type ListGoingFilesApiArg = void;
export type KeepFileLongerApiResponse = unknown;
export type KeepFileLongerApiArg = string;
export type ListReadyApiResponse = /** status 200  */ ReadyView[];
export type ListReadyApiArg = {
  shape: 'vertical' | 'square' | 'portrait' | 'wide' | 'sound';
  shortIds: string;
  /** Files as loud as this platform plays; left out, as the first of each client’s channels that takes the shape */
  platformProfileId?: string;
};
export type ReadArchiveApiResponse = unknown;
export type ReadArchiveApiArg = {
  shape: 'vertical' | 'square' | 'portrait' | 'wide' | 'sound';
  shortIds: string;
  /** Files as loud as this platform plays; left out, as the first of each client’s channels that takes the shape */
  platformProfileId?: string;
};
export type CancelRenderApiResponse = unknown;
export type CancelRenderApiArg = string;
export type ReadRenderApiResponse = unknown;
export type ReadRenderApiArg = string;
export type ReadWritingServiceApiResponse = /** status 200  */ WritingServiceView;
export type ReadWritingServiceApiArg = void;
export type ListWritingsApiResponse = /** status 200  */ WritingView[];
export type ListWritingsApiArg = string;
export type AskForWordsApiResponse = /** status 201  */ WritingView;
export type AskForWordsApiArg = string;
export type CancelWritingApiResponse = unknown;
export type CancelWritingApiArg = string;
export type ListBatchesApiResponse = /** status 200  */ BatchView[];
export type ListBatchesApiArg = void;
export type CreateBatchApiResponse = /** status 201  */ BatchView;
export type CreateBatchApiArg = BatchForm;
export type UpdateBatchApiResponse = /** status 200  */ BatchView;
export type UpdateBatchApiArg = {
  batchId: string;
  batchChangeForm: BatchChangeForm;
};
export type RemoveBatchApiResponse = unknown;
export type RemoveBatchApiArg = string;
export type ReadScheduleApiResponse = /** status 200  */ ScheduleView;
export type ReadScheduleApiArg = void;
export type ProposePlanApiResponse = /** status 200  */ ProposalView;
export type ProposePlanApiArg = LayOutForm;
export type ReadPlanFileApiResponse = /** status 200  */ PlanFileView;
export type ReadPlanFileApiArg = PlanFileForm;
export type AcceptPlanApiResponse = /** status 201  */ PostView[];
export type AcceptPlanApiArg = AcceptForm;
export type MovePostApiResponse = /** status 200  */ PostView;
export type MovePostApiArg = {
  postId: string;
  movePostForm: MovePostForm;
};
export type MovePostsApiResponse = /** status 200  */ PostView[];
export type MovePostsApiArg = MovePostsForm;
export type SetPostsMovableApiResponse = /** status 200  */ PostView[];
export type SetPostsMovableApiArg = MovableForm;
export type SetPostStateApiResponse = /** status 200  */ PostView;
export type SetPostStateApiArg = {
  postId: string;
  postStateForm: PostStateForm;
};
export type TakeOffPostApiResponse = unknown;
export type TakeOffPostApiArg = string;
export type ListCalendarsApiResponse = /** status 200  */ CalendarView[];
export type ListCalendarsApiArg = string;
export type CreateCalendarApiResponse = /** status 201  */ CalendarMadeView;
export type CreateCalendarApiArg = {
  clientId: string;
  calendarForm: CalendarForm;
};
export type WithdrawCalendarApiResponse = unknown;
export type WithdrawCalendarApiArg = string;
export type ReadCalendarApiResponse = unknown;
export type ReadCalendarApiArg = string;
export type ReadPostingApiResponse = /** status 200  */ PostingView;
export type ReadPostingApiArg = void;
export type SetStopApiResponse = /** status 200  */ PostingView;
export type SetStopApiArg = StopForm;
export type BeginConnectingApiResponse = /** status 200  */ ConnectingView;
export type BeginConnectingApiArg = string;
export type ChooseAccountApiResponse = /** status 200  */ PostingView;
export type ChooseAccountApiArg = {
  channelId: string;
  channelAccountForm: ChannelAccountForm;
};
export type FinishConnectingApiResponse = /** status 201  */ ConnectedView;
export type FinishConnectingApiArg = ConnectedForm;
export type DisconnectAccountApiResponse = unknown;
export type DisconnectAccountApiArg = string;
export type ReadSendingApiResponse = /** status 200  */ SendingView;
export type ReadSendingApiArg = string;
export type SendAgainApiResponse = /** status 201  */ PostView;
export type SendAgainApiArg = {
  postId: string;
  postSeenForm: PostSeenForm;
};
export type TellOutcomeApiResponse = /** status 200  */ PostView;
export type TellOutcomeApiArg = {
  postId: string;
  outcomeForm: OutcomeForm;
};
export type CorrectPostApiResponse = /** status 200  */ SendingView;
export type CorrectPostApiArg = {
  postId: string;
  postedWordsForm: PostedWordsForm;
};
export type TakePostDownApiResponse = /** status 200  */ SendingView;
export type TakePostDownApiArg = {
  postId: string;
  version: number;
};
export type HealthView = {
  database: boolean;
  /** The table of jobs answers */
  queue: boolean;
  /** What workers tell is heard */
  events: boolean;
};
export type SessionView = {
  userId: string;
  name: string;
  email: string;
  role: 'owner' | 'producer';
  /** Goes into the X-CSRF-Token header of every request that changes something */
  csrfToken: string;
};
export type SignInForm = {
  email: string;
  password: string;
};
export type ChangePasswordForm = {
  current: string;
  /** At least 12 characters */
  next: string;
};
export type InvitationView = {
  name: string;
  email: string;
};
export type ChoosePasswordForm = {
  /** At least 12 characters */
  password: string;
};
export type UserView = {
  id: string;
  name: string;
  email: string;
  role: 'owner' | 'producer';
  active: boolean;
  /** Has not chosen a password yet */
  invited: boolean;
  /** Assigned clients; an owner sees all without */
  clientIds: string[];
  version: number;
};
export type InvitedUserView = {
  user: UserView;
  /** The link went out by mail */
  mailed: boolean;
  /** The link, to be handed over, where no mail went out */
  link: string | null;
};
export type NewUserForm = {
  email: string;
  name: string;
  role: 'owner' | 'producer';
  clientIds: string[];
};
export type UserForm = {
  name: string;
  role: 'owner' | 'producer';
  clientIds: string[];
  active: boolean;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type BriefForm = {
  partStartMs: number;
  /** null means to the end */
  partEndMs: number | null;
  minMs: number;
  maxMs: number;
  roughCount: number;
  topics: string[];
  kinds: ('answer' | 'story' | 'advice' | 'opinion' | 'figures' | 'emotion' | 'humour')[];
  avoid: string[];
};
export type PreferredWordForm = {
  say: string;
  not: string;
};
export type VoiceFields = {
  use: PreferredWordForm[];
  /** Words and phrases that are never used */
  avoid: string[];
  spelling: 'any' | 'british' | 'american';
  /** In titles and cover lines */
  capitals: 'any' | 'sentence' | 'title';
  serialComma: 'any' | 'always' | 'never';
  person: 'any' | 'we' | 'I';
  /** How German words speak to a viewer */
  address: 'any' | 'Sie' | 'du';
  emoji: 'none' | 'texts' | 'everywhere';
  /** Characters; null where a platform’s limit is enough */
  longestTitle: number | null;
  longestText: number | null;
  /** Lines under every text: link, call to action, credits */
  fixedParts: string[];
  /** Titles that were good; proposals are to be like them */
  examples: string[];
  /** Without # */
  alwaysTags: string[];
  /** Without # */
  neverTags: string[];
};
export type CardStyleFields = {
  typeface: 'serif' | 'sans' | 'mono';
  ground: string;
  ink: string;
};
export type ClientView = {
  id: string;
  name: string;
  zone: string;
  tags: string[];
  standingBrief: BriefForm;
  /** How much each signal counts, in their order; null for the fitted weights */
  signalWeights: number[] | null;
  voice: VoiceFields;
  cardStyle: CardStyleFields;
  /** The writing service may be asked about its recordings */
  writingService: boolean;
  /** So many days a finished file is kept; null for good */
  filesKeptDays: number | null;
  /** After so many days an evergreen short may come again; null where none does */
  comeAgainDays: number | null;
  /** A post that is later than this goes out only on a person’s word */
  lateMinutes: number;
  recordingCount: number;
  channelCount: number;
  version: number;
};
export type ClientForm = {
  name: string;
  zone: string;
  /** Without # */
  tags: string[];
  standingBrief: BriefForm;
};
export type ClientChangeForm = {
  name: string;
  zone: string;
  /** Without # */
  tags: string[];
  standingBrief: BriefForm;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type ArchivedClientView = {
  id: string;
  name: string;
  archivedAt: string;
};
export type AuditView = {
  id: string;
  at: string;
  /** Who did it */
  who: string;
  action:
    | 'add-to'
    | 'allow-writing'
    | 'approve'
    | 'archive'
    | 'ask-for-words'
    | 'bring-in'
    | 'cancel'
    | 'card-style'
    | 'change-password'
    | 'choose-password'
    | 'come-again'
    | 'connect'
    | 'correct'
    | 'create'
    | 'cut'
    | 'delete'
    | 'disconnect'
    | 'draft-translation'
    | 'drop'
    | 'drop-variant'
    | 'forbid-writing'
    | 'import-translation'
    | 'invite'
    | 'keep'
    | 'keep-files'
    | 'keep-longer'
    | 'lateness'
    | 'leave'
    | 'let-come-again'
    | 'let-come-once'
    | 'let-go'
    | 'let-move'
    | 'let-post'
    | 'let-stay'
    | 'listen'
    | 'make'
    | 'make-again'
    | 'mark-posted'
    | 'move'
    | 'move-ends'
    | 'place'
    | 'read-translation'
    | 'remove'
    | 'remove-translation'
    | 'rename'
    | 'choose-track'
    | 'name-voices'
    | 'render'
    | 'restore'
    | 'retry'
    | 'send-again'
    | 'sign-in'
    | 'sign-in-failed'
    | 'sign-out'
    | 'start'
    | 'stop-listening'
    | 'stop-posting'
    | 'take-down'
    | 'take-in'
    | 'take-off'
    | 'tell-outcome'
    | 'translate'
    | 'un-approve'
    | 'unmark-posted'
    | 'unread-translation'
    | 'update'
    | 'voice'
    | 'word'
    | 'write';
  subject:
    | 'user'
    | 'client'
    | 'channel'
    | 'blackout'
    | 'platform-profile'
    | 'feed'
    | 'recording'
    | 'sift'
    | 'candidate'
    | 'short'
    | 'document'
    | 'batch'
    | 'post'
    | 'account'
    | 'posting'
    | 'calendar'
    | 'session';
  subjectId: string;
  /** What it was about, in words */
  detail: string;
};
export type SignalWeightsForm = {
  weights: number[] | null;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type VoiceForm = {
  voice: VoiceFields;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type CardStyleForm = {
  cardStyle: CardStyleFields;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type WritingAllowedForm = {
  allowed: boolean;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type FilesKeptForm = {
  /** null means for good */
  days: number | null;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type LatenessForm = {
  minutes: number;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type ComeAgainForm = {
  /** null means never */
  days: number | null;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type InterestTermView = {
  term: string;
  /** Searches a month */
  volume: number;
  /** 0 to 1 */
  competition: number;
  /** Against the month before; 0.2 is a fifth more */
  change: number;
};
export type InterestForm = {
  csv: string;
};
export type PlatformProfileView = {
  id: string;
  name: string;
  minDurationMs: number;
  maxDurationMs: number;
  shapes: ('vertical' | 'square' | 'portrait' | 'wide')[];
  titleLimit: number;
  descriptionLimit: number;
  hashtagLimit: number;
  postsPerDay: number;
  minGapMinutes: number;
  /** Integrated, LUFS: what its players even out to */
  loudness: number;
  /** At most, dBTP */
  truePeak: number;
  /** What its channels post through; null: they are posted by hand */
  service: string | null;
  version: number;
};
export type WindowForm = {
  /** ISO weekday: Monday 1 to Sunday 7 */
  weekday: number;
  /** Minutes after midnight on the wall of the channel’s zone */
  minute: number;
  weight: number;
};
export type ChannelView = {
  id: string;
  clientId: string;
  name: string;
  zone: string;
  order: number;
  postsPerDay: number;
  postsPerWeek: number;
  /** What its posts are in; null for the language of the talk */
  language: string | null;
  platform: PlatformProfileView;
  windows: WindowForm[];
  version: number;
};
export type ChannelForm = {
  name: string;
  platformProfileId: string;
  zone: string;
  /** 1 is where a short goes first */
  order: number;
  postsPerDay: number;
  postsPerWeek: number;
  /** What its posts are in; null for the language of the talk */
  language?: string | null;
  windows: WindowForm[];
};
export type ChannelChangeForm = {
  name: string;
  platformProfileId: string;
  zone: string;
  /** 1 is where a short goes first */
  order: number;
  postsPerDay: number;
  postsPerWeek: number;
  /** What its posts are in; null for the language of the talk */
  language?: string | null;
  windows: WindowForm[];
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type BlackoutView = {
  id: string;
  clientId: string;
  channelId: string | null;
  fromDate: string;
  toDate: string;
  reason: string;
};
export type BlackoutForm = {
  /** null means every channel of the client */
  channelId: string | null;
  fromDate: string;
  toDate: string;
  reason: string;
};
export type PlatformProfileForm = {
  name: string;
  minDurationMs: number;
  maxDurationMs: number;
  shapes: ('vertical' | 'square' | 'portrait' | 'wide')[];
  titleLimit: number;
  descriptionLimit: number;
  hashtagLimit: number;
  postsPerDay: number;
  minGapMinutes: number;
  /** Integrated, LUFS: what its players even out to */
  loudness: number;
  /** At most, dBTP */
  truePeak: number;
  /** What its channels post through; null: they are posted by hand */
  service?: string | null;
};
export type PlatformProfileChangeForm = {
  name: string;
  minDurationMs: number;
  maxDurationMs: number;
  shapes: ('vertical' | 'square' | 'portrait' | 'wide')[];
  titleLimit: number;
  descriptionLimit: number;
  hashtagLimit: number;
  postsPerDay: number;
  minGapMinutes: number;
  /** Integrated, LUFS: what its players even out to */
  loudness: number;
  /** At most, dBTP */
  truePeak: number;
  /** What its channels post through; null: they are posted by hand */
  service?: string | null;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type PictureView = {
  width: number;
  height: number;
};
export type SoundTrackView = {
  codec: string;
  channels: number;
  language: string;
  title: string;
};
export type SoundView = {
  name: string;
  type: string;
  bytes: number;
  /** What is seen of it; null for sound alone */
  picture: PictureView | null;
  tracks: SoundTrackView[];
  /** Which of its tracks is the recording’s; null for a picture without sound */
  track: number | null;
};
export type TranscriptSummaryView = {
  sourceName: string;
  format: string;
  encoding: string;
  wordCount: number;
  sentenceCount: number;
  speakers: string[];
  wordTimes: 'given' | 'spread' | 'heard';
  sentenceEnds: 'written' | 'restored' | 'mixed';
  repairCount: number;
};
export type SpriteView = {
  columns: number;
  count: number;
  /** Time from one small picture to the next, in ms */
  everyMs: number;
  /** Of one small picture, in px */
  width: number;
  height: number;
};
export type HeardLoudnessView = {
  /** LUFS (EBU R 128) */
  integrated: number;
  /** The loudest three seconds, LUFS */
  shortTerm: number;
  /** LU */
  range: number;
  /** dBTP */
  truePeak: number;
};
export type PreparationView = {
  id: string;
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  stage: string;
  fraction: number;
  leftMs: number | null;
  failure: string | null;
  /** True when browsers are given another file than the original */
  proxied: boolean;
  sprite: SpriteView | null;
  /** Null until it was heard, and for silence */
  loudness: HeardLoudnessView | null;
  /** True when its levels can be shown */
  heard: boolean;
};
export type AlignmentView = {
  kind: 'text' | 'cues' | 'draft';
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  stage: string;
  fraction: number;
  leftMs: number | null;
  failure: string | null;
  /** File of a text that waits for its times */
  sourceName: string | null;
  /** Of the words, the share that was heard */
  share: number | null;
  /** Taken, or why not; null until it is done */
  outcome: ('taken' | 'shorts' | 'unlike' | 'language') | null;
};
export type FetchView = {
  id: string;
  /** Host that it comes from */
  host: string;
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  stage: string;
  fraction: number;
  leftMs: number | null;
  failure: string | null;
  /** What could not be had of it */
  notes: string[];
};
export type PersonView = {
  name: string;
  /** Such as host or guest */
  role: string;
};
export type GivenChapterView = {
  startMs: number;
  title: string;
};
export type OriginView = {
  feedTitle: string;
  publishedAt: string | null;
  link: string | null;
  season: number | null;
  seasonName: string;
  number: string;
  persons: PersonView[];
  chapters: GivenChapterView[];
};
export type LatestSiftView = {
  id: string;
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  stage: string;
  fraction: number;
  leftMs: number | null;
  candidateCount: number;
  keptCount: number;
  strongCount: number | null;
};
export type RecordingView = {
  id: string;
  clientId: string;
  title: string;
  durationMs: number | null;
  sound: SoundView | null;
  transcript: TranscriptSummaryView | null;
  preparation: PreparationView | null;
  alignment: AlignmentView | null;
  /** Null for what was brought in by hand */
  fetch: FetchView | null;
  origin: OriginView | null;
  latestSift: LatestSiftView | null;
  createdAt: string;
  version: number;
};
export type RecordingForm = {
  title: string;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type SaidFirstView = {
  startMs: number | null;
  speaker: string | null;
  text: string;
};
export type RepairView = {
  line: number;
  code: string;
  detail: string;
};
export type TranscriptReadingView = {
  sourceName: string;
  format: string;
  encoding: string;
  wordCount: number;
  sentenceCount: number;
  speakers: string[];
  wordTimes: 'given' | 'spread' | 'heard';
  sentenceEnds: 'written' | 'restored' | 'mixed';
  repairCount: number;
  /** False for text without times, which are heard in the sound */
  timed: boolean;
  durationMs: number;
  excerpt: SaidFirstView[];
  repairs: RepairView[];
};
export type VoiceNamesForm = {
  names: string[];
  unnamed: string | null;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type SoundTrackForm = {
  track: number;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type PackedTranscriptView = {
  text: string;
  starts: number[];
  lengths: number[];
  marks: number[];
  turns: number[];
  sentences: number[];
  speakers: string[];
  durationMs: number;
  wordTimes: 'given' | 'spread' | 'heard';
  sentenceEnds: 'written' | 'restored' | 'mixed';
};
export type RepairsView = {
  sourceName: string;
  count: number;
  repairs: RepairView[];
};
export type SoundLevelsView = {
  /** Time from one level to the next, in ms */
  stepMs: number;
  /** Mean power within each step, in dB below full scale, -96 to 0 */
  db: number[];
};
export type SiftView = {
  id: string;
  recordingId: string;
  brief: BriefForm;
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  stage: string;
  /** 0 to 1 */
  fraction: number;
  /** Time left in ms, as far as it can be told */
  leftMs: number | null;
  /** Why it failed */
  failure: string | null;
  candidateCount: number;
  keptCount: number;
  /** Who asked for it */
  createdBy: string;
  createdAt: string;
};
export type SearchHitView = {
  firstWord: number;
  endWord: number;
  startMs: number;
  endMs: number;
  /** 0 to 1 beside the best of its kind */
  score: number;
  by: 'words' | 'meaning';
  text: string;
};
export type SearchView = {
  query: string;
  /** False until the recording has been sifted once: only then are its vectors there */
  byMeaning: boolean;
  hits: SearchHitView[];
};
export type AlternativeView = {
  startMs: number;
  endMs: number;
  firstWord: number;
  endWord: number;
  /** 0 to 100 */
  score: number;
  why: 'other-cut' | 'said-again';
  firstLine: string;
};
export type SignalView = {
  signal: 'opening' | 'standsAlone' | 'substance' | 'charge' | 'delivery' | 'currency';
  /** False where it cannot be known in the language of the talk; it counts as ordinary then */
  known: boolean;
  value: number;
  sentence: string;
  /** Pairs of words: first inside, end not */
  evidence: number[];
};
export type CandidateView = {
  id: string;
  rank: number;
  /** 0 to 100 */
  score: number;
  startMs: number;
  endMs: number;
  firstWord: number;
  endWord: number;
  /** Where the sift found it, before anybody moved its ends */
  foundFirstWord: number;
  foundEndWord: number;
  kind: 'answer' | 'story' | 'advice' | 'opinion' | 'figures' | 'emotion' | 'humour' | 'passage';
  reason: string;
  firstLine: string;
  lastLine: string;
  title: string;
  hashtags: string[];
  /** Other cuts of it, and other places that say the same; at most three */
  alternatives: AlternativeView[];
  /** Found by the sift, or made by somebody */
  origin: 'sift' | 'own';
  state: 'open' | 'kept' | 'dropped';
  /** The six, in order */
  signals: SignalView[];
};
export type OwnCandidateForm = {
  firstWord: number;
  endWord: number;
  around?: boolean;
};
export type ChapterView = {
  startMs: number;
  endMs: number;
  firstWord: number;
  endWord: number;
  title: string;
};
export type MakeUpView = {
  /** Shares of the time of speech: explaining, verdicts, questions and answers, stories, procedure, chatter; they sum to 1 */
  shares: number[];
  /** Which of the six is said, in as many steps as the ridge has; -1 where nothing is */
  steps: number[];
  /** What kind of recording this is, in a sentence */
  sentence: string;
};
export type KeyPhraseView = {
  text: string;
  count: number;
  /** First words of the places where it is said */
  firstWords: number[];
  /** Number of its words */
  length: number;
  /** Searches a month, where the interest list has the phrase */
  volume: number | null;
  /** 0 to 1 */
  competition: number | null;
  /** Against the month before; 0.2 is a fifth more */
  change: number | null;
};
export type RankingView = {
  sift: SiftView;
  chapters: ChapterView[];
  /** Worth over the whole recording in equal steps, 0 to 100 */
  ridge: number[];
  strongCount: number;
  limits: string[];
  /** What the talk is in, where that is not English */
  language: string | null;
  /** Null where it cannot be told */
  makeUp: MakeUpView | null;
  keyPhrases: KeyPhraseView[];
  /** How much each signal counted, in their order */
  weights: number[];
  candidates: CandidateView[];
};
export type CandidateStateForm = {
  state: 'open' | 'kept' | 'dropped';
};
export type WordSpanForm = {
  firstWord: number;
  endWord: number;
};
export type PauseCutForm = {
  afterWord: number;
  leftMs: number;
};
export type CorrectedWordForm = {
  word: number;
  /** Empty where it is part of the word before */
  text: string;
};
export type EditFields = {
  /** Words that are taken out */
  removed: WordSpanForm[];
  pauses: PauseCutForm[];
  corrected: CorrectedWordForm[];
  /** Other parts of the recording that are played before it */
  before: WordSpanForm[];
  /** And after it */
  after: WordSpanForm[];
};
export type CopyView = {
  title: string;
  description: string;
  hashtags: string[];
  keywords: string[];
  coverLine: string;
};
export type CopyProblemView = {
  field: string;
  detail: string;
};
export type ShortChannelView = {
  channelId: string;
  name: string;
  platform: string;
  titleLimit: number;
  descriptionLimit: number;
  hashtagLimit: number;
  /** The channel’s own words; null where it takes those for all */
  variant: CopyView | null;
  /** Code of the channel’s language where it is not the talk’s */
  language: string | null;
  /** The words in the channel’s language, where there are any and the channel has none of its own */
  translated: CopyView | null;
  problems: CopyProblemView[];
  /** Why the channel cannot take it, whatever the words */
  unfit: string | null;
};
export type ShortView = {
  id: string;
  clientId: string;
  recordingId: string;
  recordingTitle: string;
  siftId: string;
  candidateId: string;
  firstWord: number;
  endWord: number;
  startMs: number;
  endMs: number;
  /** How long it plays: less than from start to end where something is cut out */
  playedMs: number;
  edit: EditFields;
  score: number;
  kind: 'answer' | 'story' | 'advice' | 'opinion' | 'figures' | 'emotion' | 'humour' | 'passage';
  firstLine: string;
  reason: string;
  copy: CopyView;
  channels: ShortChannelView[];
  /** Lines of the client under every text */
  fixedParts: string[];
  /** It may come again where its client wants that */
  evergreen: boolean;
  /** After so many days it may stand on a channel again; null where it goes to each once */
  comesAgainDays: number | null;
  approved: boolean;
  approvedBy: string | null;
  postCount: number;
  /** Counts every change of span and words */
  version: number;
};
export type CopyForm = {
  title: string;
  description: string;
  /** Without # */
  hashtags: string[];
  keywords: string[];
  coverLine: string;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type CopyVersionView = {
  id: string;
  writtenAt: string;
  /** null where the program proposed it */
  writtenBy: string | null;
  /** null for the words of all channels */
  channelId: string | null;
  channel: string | null;
  copy: CopyView;
};
export type SpanView = {
  startMs: number;
  endMs: number;
};
export type PassageSentenceView = {
  speaker: string | null;
  startMs: number;
  endMs: number;
  text: string;
};
export type PassageView = {
  /** What of the recording is played, in this order */
  cuts: SpanView[];
  sentences: PassageSentenceView[];
};
export type TitleView = {
  text: string;
  sort: 'said' | 'question' | 'advice' | 'why' | 'when' | 'how' | 'contrast' | 'mistake' | 'comparison' | 'figure' | 'topic';
  /** The words of the passage that it was made of */
  said: string;
  /** It may not be whole: look at it before it goes out */
  draft: boolean;
  /** The text that goes with it */
  description: string;
};
export type FindingView = {
  field: 'title' | 'description' | 'hashtags' | 'keywords' | 'coverLine';
  /** Which tag or keyword; null in a field that is one text */
  item: number | null;
  /** First character, in UTF-16 units */
  from: number;
  to: number;
  rule: 'figure' | 'name' | 'quotation' | 'claim' | 'avoid' | 'use' | 'spelling' | 'capitals' | 'comma' | 'person' | 'emoji' | 'length';
  text: string;
  /** What is wrong, in a sentence */
  detail: string;
  /** What would take its place; null where only a person can tell */
  mend: string | null;
  /** A person has said that it is right all the same */
  ticked: boolean;
};
export type CheckView = {
  findings: FindingView[];
  /** The passage itself speaks to a program that may read it: look twice at what such a program proposes */
  speaksToProgram: boolean;
};
export type CheckForm = {
  title: string;
  description: string;
  /** Without # */
  hashtags: string[];
  keywords: string[];
  coverLine: string;
};
export type EvergreenForm = {
  evergreen: boolean;
};
export type TickForm = {
  rule: 'figure' | 'name' | 'quotation' | 'claim';
  text: string;
};
export type ApprovalForm = {
  approved: boolean;
  /** What was not said and is right all the same */
  ticks?: TickForm[];
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type SpokenWordView = {
  text: string;
  startMs: number;
  endMs: number;
  /** The same for all words of a sentence */
  sentence: number;
  /** Heard, and not said: [laughter] */
  mark: boolean;
};
export type TurnView = {
  word: number;
  speaker: string;
};
export type TalkView = {
  firstWord: number;
  words: SpokenWordView[];
  turns: TurnView[];
};
export type LevelsView = {
  fromMs: number;
  stepMs: number;
  /** dB below full scale, -96 to 0 */
  db: number[];
};
export type TalkAroundView = {
  /** The passage with what is said around it; then each other part of its edit */
  talks: TalkView[];
  /** Of the first of the talks; null where nobody has listened yet */
  levels: LevelsView | null;
  /** Of the whole recording */
  wordCount: number;
  /** The times of words are spread over their captions, so a cut may fall beside a word */
  spreadTimes: boolean;
};
export type EditForm = {
  edit: EditFields;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type TighteningView = {
  sort: 'pause' | 'filler' | 'repeat' | 'false-start';
  firstWord: number;
  endWord: number;
  /** What is left of the pause; null where words go */
  leftMs: number | null;
  /** By itself */
  savedMs: number;
};
export type DrawnCaptionView = {
  startMs: number;
  endMs: number;
  text: string;
  /** SVG */
  svg: string;
};
export type FramesView = {
  /** SVG */
  ground: string;
  captions: DrawnCaptionView[];
};
export type ReelForm = {
  parts: WordSpanForm[];
};
export type FoundPassageView = {
  firstWord: number;
  endWord: number;
  edit: EditFields;
  playedMs: number;
  /** How it begins */
  said: string;
};
export type EditListPassageView = {
  title: string;
  /** As it was cut, in ms of the recording */
  startMs: number;
  endMs: number;
  /** Spans that it plays */
  spans: number;
  passage: FoundPassageView | null;
  /** A short that plays the same is kept already */
  kept: boolean;
  /** How far an end lies from where it was cut, at most, in ms; 0 where every frame is the same */
  offMs: number;
  /** Why it cannot become a short */
  problem: ('beyond-the-end' | 'nothing-said' | 'too-many-parts' | 'too-long') | null;
};
export type EditListView = {
  passages: EditListPassageView[];
};
export type EditListForm = {
  /** Of the file */
  name: string;
  /** CMX 3600, or OpenTimelineIO JSON */
  text: string;
  /** All that it plays is one short */
  asOne: boolean;
};
export type KeptPassageForm = {
  firstWord: number;
  endWord: number;
  /** Empty where one is to be proposed */
  title: string;
  edit: EditFields;
};
export type KeepPassagesForm = {
  passages: KeptPassageForm[];
};
export type CaptionTimeView = {
  startMs: number;
  endMs: number;
};
export type TranslationFindingView = {
  rule: 'missing' | 'too-long' | 'too-fast' | 'numbers' | 'sounds';
  detail: string;
};
export type TranslationUnitView = {
  id: string;
  name: string;
  source: string;
  target: string;
  /** Characters that it may have */
  limit: number | null;
  time: CaptionTimeView | null;
  /** The source is not what it was when this was translated */
  changed: boolean;
  findings: TranslationFindingView[];
};
export type TranslationView = {
  /** Code of ISO 639-1, with a region where it has one */
  language: string;
  name: string;
  /** Who has read all of it, as it is now; null for a draft */
  readBy: string | null;
  readAt: string | null;
  /** It was read, but the short’s own words have changed since then */
  outdated: boolean;
  /** The program that drafted it */
  draftedBy: string | null;
  /** A draft can be asked for */
  draftable: boolean;
  units: TranslationUnitView[];
  /** 0 where nothing is translated yet */
  version: number;
};
export type TargetForm = {
  unit: string;
  text: string;
};
export type TranslationForm = {
  targets: TargetForm[];
  version: number;
};
export type TranslationSeenForm = {
  version: number;
};
export type TranslationReadForm = {
  version: number;
  /** A person has read all of it */
  read: boolean;
};
export type XliffForm = {
  version: number;
  xliff: string;
};
export type AlignmentForm = {
  kind: 'text' | 'cues' | 'draft';
};
export type FeedView = {
  id: string;
  clientId: string;
  url: string;
  /** The name of its host until it was read */
  title: string;
  rule: 'list' | 'take' | 'sift';
  /** It is being read, or will be in a moment */
  reading: boolean;
  /** When it was read last */
  readAt: string | null;
  /** Null for a feed that is not read by itself any more */
  nextReadAt: string | null;
  /** Why it could not be read, or what was not done by itself */
  trouble: string | null;
  episodeCount: number;
  /** Episodes that came out since it is followed and were not taken in */
  newCount: number;
  version: number;
};
export type FeedForm = {
  /** Of the RSS feed */
  url: string;
  rule: 'list' | 'take' | 'sift';
};
export type FeedChangeForm = {
  rule: 'list' | 'take' | 'sift';
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type EpisodeView = {
  id: string;
  clientId: string;
  feedId: string;
  feedTitle: string;
  title: string;
  summary: string;
  link: string | null;
  publishedAt: string | null;
  durationMs: number | null;
  season: number | null;
  seasonName: string;
  /** As it is shown, such as 12; empty where the feed says nothing */
  number: string;
  /** Hosts and guests */
  persons: string[];
  video: boolean;
  bytes: number | null;
  hasTranscript: boolean;
  hasChapters: boolean;
  /** Came out after the feed was followed */
  isNew: boolean;
  /** What it became; null until it is taken in */
  recordingId: string | null;
};
export type TakeInForm = {
  /** Sift it with the standing brief as soon as its words are there */
  sift: boolean;
};
export type LinkForm = {
  url: string;
  transcriptUrl: string | null;
  /** null takes the name of the file */
  title: string | null;
  /** Sift it with the standing brief as soon as its words are there */
  sift: boolean;
};
export type DocumentEntryView = {
  id: string;
  kind: 'chapters' | 'summary' | 'show-notes' | 'text-posts' | 'series' | 'article' | 'newsletter' | 'quote-cards';
  writtenAt: string;
  /** Who wrote it last; null where it is as it was proposed */
  writtenBy: string | null;
  version: number;
};
export type DocumentView = {
  id: string;
  kind: 'chapters' | 'summary' | 'show-notes' | 'text-posts' | 'series' | 'article' | 'newsletter' | 'quote-cards';
  writtenAt: string;
  /** Who wrote it last; null where it is as it was proposed */
  writtenBy: string | null;
  version: number;
  clientId: string;
  recordingId: string;
  recordingTitle: string;
  /** The recording has a sound */
  sound: boolean;
  /** Code of the language of the talk */
  language: string;
  /** The text as a tree */
  content: {
    [key: string]: any;
  };
};
export type NewDocumentForm = {
  kind: 'chapters' | 'summary' | 'show-notes' | 'text-posts' | 'series' | 'article' | 'newsletter' | 'quote-cards';
};
export type DocumentForm = {
  /** The text as a tree: doc, heading, paragraph, blockquote, bulletList, orderedList, listItem, text with bold, italic and moment */
  content: {
    [key: string]: any;
  };
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type DocumentSeenForm = {
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type DocumentVersionView = {
  id: string;
  writtenAt: string;
  /** Null where it was proposed */
  writtenBy: string | null;
  /** The text as a tree */
  content: {
    [key: string]: any;
  };
};
export type RenderView = {
  id: string;
  shortId: string;
  shape: 'vertical' | 'square' | 'portrait' | 'wide' | 'sound';
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  stage: string;
  fraction: number;
  leftMs: number | null;
  failure: string | null;
  askedBy: string;
  askedAt: string;
  durationMs: number;
  /** Null until it is there */
  bytes: number | null;
  /** Integrated, LUFS */
  loudness: number;
  /** At most, dBTP */
  truePeak: number;
  /** What it was made of has changed since */
  outdated: boolean;
};
export type RenderForm = {
  shape: 'vertical' | 'square' | 'portrait' | 'wide' | 'sound';
  /** As loud as this platform plays; left out, as the first of the client’s channels that takes the shape */
  platformProfileId?: string;
};
export type GoingFileView = {
  id: string;
  shortId: string;
  clientId: string;
  title: string;
  shape: 'vertical' | 'square' | 'portrait' | 'wide' | 'sound';
  bytes: number;
  goesAt: string;
};
export type ReadyView = {
  shortId: string;
  title: string;
  ready: boolean;
};
export type WritingServiceView = {
  /** An address of a writing service is configured */
  configured: boolean;
};
export type WrittenTitleView = {
  text: string;
  findings: FindingView[];
};
export type WritingView = {
  id: string;
  shortId: string;
  askedBy: string;
  askedAt: string;
  state: 'waiting' | 'running' | 'done' | 'failed' | 'cancelled';
  failure: string | null;
  titles: WrittenTitleView[];
  description: string;
  hashtags: string[];
  keywords: string[];
  coverLine: string;
  /** Of all but the titles */
  findings: FindingView[];
  /** The answer’s language where it is another than the talk’s */
  otherLanguage: string | null;
  /** The passage itself speaks to a program */
  speaksToProgram: boolean;
  /** What was sent, as JSON */
  sent: string;
  /** What came, as it came */
  came: string | null;
};
export type BatchView = {
  id: string;
  name: string;
  /** Members that can go out: kept, and approved as they are */
  shortIds: string[];
  createdAt: string;
  version: number;
};
export type BatchForm = {
  name: string;
  shortIds: string[];
};
export type BatchChangeForm = {
  name: string;
  shortIds: string[];
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type CopyProblemByChannelView = {
  channelId: string;
  detail: string;
};
export type ScheduleShortView = {
  id: string;
  clientId: string;
  recordingId: string;
  recordingTitle: string;
  title: string;
  lengthMs: number;
  score: number;
  approved: boolean;
  /** After so many days it may stand on a channel again; null where it goes to each once */
  comesAgainDays: number | null;
  copyProblems: CopyProblemByChannelView[];
};
export type PostView = {
  id: string;
  clientId: string;
  channelId: string;
  shortId: string;
  batchId: string | null;
  recordingId: string;
  date: string;
  minute: number;
  at: string;
  state: 'planned' | 'waiting' | 'sending' | 'processing' | 'posted' | 'refused' | 'missed';
  /** What it waits for, where that is its state */
  waits: ('file' | 'approval' | 'words' | 'right' | 'account' | 'stop' | 'limit') | null;
  /** Why it was refused, or is too late */
  failure: string | null;
  why: string;
  /** Laying out may move it on its channel */
  movable: boolean;
  version: number;
};
export type ScheduleView = {
  channels: ChannelView[];
  blackouts: BlackoutView[];
  shorts: ScheduleShortView[];
  posts: PostView[];
  /** The server’s clock; nothing is placed before it */
  now: string;
};
export type PlacementView = {
  shortId: string;
  channelId: string;
  date: string;
  minute: number;
  at: string;
  why: string;
  /** Score times weight, by 100 */
  worth: number;
};
export type ProposedMoveView = {
  shortId: string;
  channelId: string;
  date: string;
  minute: number;
  at: string;
  why: string;
  /** Score times weight, by 100 */
  worth: number;
  postId: string;
  /** Of the post, as it was seen */
  version: number;
  fromDate: string;
  fromMinute: number;
  /** Score times weight, by 100, where it stands */
  worthBefore: number;
};
export type UnplacedView = {
  shortId: string;
  channelId: string;
  code: string;
  detail: string;
};
export type ProposalView = {
  placements: PlacementView[];
  moves: ProposedMoveView[];
  unplaced: UnplacedView[];
  /** What the placements are worth together, and what the moves add to it */
  value: number;
  /** No plan of these shorts on these days is worth more */
  bound: number;
};
export type PlacementForm = {
  shortId: string;
  channelId: string;
  date: string;
  minute: number;
  why: string;
};
export type PostMoveForm = {
  channelId: string;
  date: string;
  minute: number;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
  postId: string;
};
export type StretchForm = {
  fromDate: string;
  toDate: string;
};
export type WhatIfForm = {
  channelId: string;
  postsPerDay: number | null;
  postsPerWeek: number | null;
  /** Windows besides those that it has */
  windows: WindowForm[];
  /** Days without posts besides those that it has */
  blackouts: StretchForm[];
};
export type LayOutForm = {
  shortIds: string[];
  fromDate: string;
  toDate: string;
  /** Placements of a proposal before that stay as they are */
  kept: PlacementForm[];
  /** Moves of that proposal, made likewise */
  keptMoves?: PostMoveForm[];
  /** Changes that are tried, and not made */
  whatIf: WhatIfForm[];
};
export type PlanFilePlaceView = {
  /** Of the file, from 1 */
  line: number;
  shortId: string;
  channelId: string;
  date: string;
  minute: number;
  why: string;
};
export type RefusedLineView = {
  /** Of the file, from 1 */
  line: number;
  /** The column */
  field: string;
  detail: string;
};
export type PlanFileView = {
  placements: PlanFilePlaceView[];
  refused: RefusedLineView[];
  /** Lines that stand on the schedule already */
  standing: number;
};
export type PlanFileForm = {
  csv: string;
  /** Only of this client */
  clientId: string | null;
};
export type TakenMoveForm = {
  channelId: string;
  date: string;
  minute: number;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
  postId: string;
  why: string;
};
export type AcceptForm = {
  batchId: string | null;
  placements: PlacementForm[];
  /** Posts that move with it */
  moves?: TakenMoveForm[];
};
export type MovePostForm = {
  channelId: string;
  date: string;
  minute: number;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type MovePostsForm = {
  moves: PostMoveForm[];
};
export type SeenPostForm = {
  postId: string;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type MovableForm = {
  posts: SeenPostForm[];
  /** Laying out may move them, or they stay */
  movable: boolean;
};
export type PostStateForm = {
  /** `refused` takes a mark back from a post that had been refused */
  state: 'planned' | 'posted' | 'refused';
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type CalendarView = {
  id: string;
  clientId: string;
  /** Whom it is for */
  name: string;
  /** When it was last read, to some ten minutes */
  readAt: string | null;
  createdAt: string;
};
export type CalendarMadeView = {
  id: string;
  clientId: string;
  /** Whom it is for */
  name: string;
  /** When it was last read, to some ten minutes */
  readAt: string | null;
  createdAt: string;
  /** Told this once */
  address: string;
};
export type CalendarForm = {
  /** Whom it is for */
  name: string;
};
export type ServiceView = {
  /** As platform profiles name it */
  name: string;
  title: string;
  /** Words can be changed there once a post is out */
  corrects: boolean;
};
export type AccountView = {
  id: string;
  clientId: string;
  service: string;
  /** As the platform calls it */
  name: string;
  state: 'connected' | 'revoked' | 'lacking';
  /** Why nothing can be posted with it */
  trouble: string | null;
  stateSince: string;
  connectedBy: string;
  connectedAt: string;
};
export type ChannelAccountView = {
  channelId: string;
  accountId: string;
};
export type StopView = {
  id: string;
  /** Null: everything */
  clientId: string | null;
  /** Null: all channels of the client */
  channelId: string | null;
  stoppedBy: string;
  stoppedAt: string;
};
export type PostingView = {
  /** Accounts can be connected: a key is configured to seal their tokens with */
  isReady: boolean;
  services: ServiceView[];
  accounts: AccountView[];
  channels: ChannelAccountView[];
  stops: StopView[];
};
export type StopForm = {
  clientId: string | null;
  channelId: string | null;
  stopped: boolean;
};
export type ConnectingView = {
  address: string;
};
export type ChannelAccountForm = {
  /** An account of its client on its platform; null: its posts are posted by hand */
  accountId: string | null;
};
export type ConnectedView = {
  clientId: string;
  channelId: string;
  accountName: string;
};
export type ConnectedForm = {
  state: string;
  code?: string;
  iss?: string;
  error?: string;
};
export type SendingEventView = {
  at: string;
  event:
    | 'fixed'
    | 'waits'
    | 'begun'
    | 'no-answer'
    | 'found'
    | 'not-found'
    | 'put-off'
    | 'taken'
    | 'posted'
    | 'refused'
    | 'missed'
    | 'recalled'
    | 'corrected'
    | 'taken-down'
    | 'send-again'
    | 'told-up'
    | 'told-not-up';
  detail: string;
  /** Who did it; null: the program */
  by: string | null;
};
export type SendingView = {
  /** Null while nothing is fixed */
  service: string | null;
  account: string | null;
  title: string;
  description: string;
  hashtags: string[];
  fixedAt: string | null;
  /** A call that publishes broke off, and its end is not known yet */
  inDoubt: boolean;
  /** Nothing can find that out any more but a person */
  askPerson: boolean;
  tries: number;
  /** Where it is seen */
  address: string | null;
  postedAt: string | null;
  takenDownAt: string | null;
  corrects: boolean;
  events: SendingEventView[];
};
export type PostSeenForm = {
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type OutcomeForm = {
  /** It is up there */
  isUp: boolean;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export type PostedWordsForm = {
  title: string;
  description: string;
  /** The version that was seen; a write that saw an older one is refused (409) */
  version: number;
};
export const {
  useReadHealthQuery,
  useSignInMutation,
  useReadSessionQuery,
  useSignOutMutation,
  useChangePasswordMutation,
  useReadInvitationQuery,
  useAcceptInvitationMutation,
  useListUsersQuery,
  useCreateUserMutation,
  useUpdateUserMutation,
  useRemoveUserMutation,
  useInviteUserMutation,
  useListClientsQuery,
  useCreateClientMutation,
  useUpdateClientMutation,
  useArchiveClientMutation,
  useListArchivedClientsQuery,
  useRestoreClientMutation,
  useListAgencyAuditQuery,
  useSetSignalWeightsMutation,
  useSetVoiceMutation,
  useSetCardStyleMutation,
  useAllowWritingMutation,
  useSetFilesKeptMutation,
  useSetLatenessMutation,
  useSetComeAgainMutation,
  useListInterestQuery,
  useSetInterestMutation,
  useListAuditQuery,
  useListChannelsQuery,
  useCreateChannelMutation,
  useUpdateChannelMutation,
  useRemoveChannelMutation,
  useListBlackoutsQuery,
  useCreateBlackoutMutation,
  useRemoveBlackoutMutation,
  useListPlatformProfilesQuery,
  useCreatePlatformProfileMutation,
  useUpdatePlatformProfileMutation,
  useListRecordingsQuery,
  useReadRecordingQuery,
  useRenameRecordingMutation,
  useRemoveRecordingMutation,
  useReadTranscriptFileMutation,
  useNameVoicesMutation,
  useChooseSoundTrackMutation,
  useReadTranscriptQuery,
  useReadRepairsQuery,
  usePrepareAgainMutation,
  useReadLevelsQuery,
  useReadProxyQuery,
  useReadSpriteQuery,
  useListSiftsQuery,
  useStartSiftMutation,
  useSearchRecordingQuery,
  useAddCandidateMutation,
  useRemoveCandidateMutation,
  useReadSiftQuery,
  useReadRankingQuery,
  useCancelSiftMutation,
  useRetrySiftMutation,
  useSetCandidateStateMutation,
  useSetCandidateSpanMutation,
  useListShortsQuery,
  useReadShortQuery,
  useSaveCopyMutation,
  useSaveVariantMutation,
  useDropVariantMutation,
  useProposeCopyMutation,
  useListCopyVersionsQuery,
  useReadPassageQuery,
  useOfferTitlesQuery,
  useCheckCopyMutation,
  useSetEvergreenMutation,
  useSetApprovalMutation,
  useReadTalkQuery,
  useSaveEditMutation,
  useProposeTighteningQuery,
  useDrawFramesQuery,
  useKeepReelMutation,
  useReadEditListMutation,
  useKeepPassagesMutation,
  useListTranslationsQuery,
  useReadTranslationQuery,
  useSaveTranslationMutation,
  useRemoveTranslationMutation,
  useDraftTranslationMutation,
  useSetTranslationReadMutation,
  useImportXliffMutation,
  useListenForWordsMutation,
  useStopListeningMutation,
  useListFeedsQuery,
  useFollowFeedMutation,
  useChangeFeedMutation,
  useLeaveFeedMutation,
  useReadFeedNowMutation,
  useListEpisodesQuery,
  useListNewEpisodesQuery,
  useTakeInEpisodeMutation,
  useFetchLinkMutation,
  useFetchAgainMutation,
  useStopFetchMutation,
  useListDocumentsQuery,
  useMakeDocumentMutation,
  useReadDocumentQuery,
  useSaveDocumentMutation,
  useRemoveDocumentMutation,
  useMakeDocumentAgainMutation,
  useListDocumentVersionsQuery,
  useListRendersQuery,
  useAskForRenderMutation,
  useListGoingFilesQuery,
  useKeepFileLongerMutation,
  useListReadyQuery,
  useReadArchiveQuery,
  useCancelRenderMutation,
  useReadRenderQuery,
  useReadWritingServiceQuery,
  useListWritingsQuery,
  useAskForWordsMutation,
  useCancelWritingMutation,
  useListBatchesQuery,
  useCreateBatchMutation,
  useUpdateBatchMutation,
  useRemoveBatchMutation,
  useReadScheduleQuery,
  useProposePlanMutation,
  useReadPlanFileMutation,
  useAcceptPlanMutation,
  useMovePostMutation,
  useMovePostsMutation,
  useSetPostsMovableMutation,
  useSetPostStateMutation,
  useTakeOffPostMutation,
  useListCalendarsQuery,
  useCreateCalendarMutation,
  useWithdrawCalendarMutation,
  useReadCalendarQuery,
  useReadPostingQuery,
  useSetStopMutation,
  useBeginConnectingMutation,
  useChooseAccountMutation,
  useFinishConnectingMutation,
  useDisconnectAccountMutation,
  useReadSendingQuery,
  useSendAgainMutation,
  useTellOutcomeMutation,
  useCorrectPostMutation,
  useTakePostDownMutation,
} = injectedRtkApi;

import type { ThunkDispatch, UnknownAction } from '@reduxjs/toolkit';
import { api } from './api.js';
import type { LatestSiftView, RecordingView, RenderView, SiftView } from './generated-api.js';
import { sessionEnded, untilSignedIn } from './session.js';

// eslint-disable-next-line @typescript-eslint/no-explicit-any -- the root state names this api, and would be its own type
type Dispatch = ThunkDispatch<any, unknown, UnknownAction>;

interface JobEvent {
  readonly kind: string;
  readonly subjectId: string;
  readonly about: Readonly<Record<string, string>>;
  readonly state: LatestSiftView['state'];
  readonly stage: string;
  readonly fraction: number;
  readonly leftMs: number | null;
  readonly failure: string | null;
}
type StreamMessage = { type: 'job'; job: JobEvent } | { type: 'beat' } | { type: 'missed' } | { type: 'over' };

/** The server beats every 20 s; a line that is silent for longer than two beats is dead, or the machine was asleep. */
const SILENCE_MS = 45_000;
const FIRST_WAIT_MS = 500;
const LONGEST_WAIT_MS = 15_000;

/** What may have changed while nobody listened. */
const MISSED = ['Feed', 'Recording', 'Sift', 'Ranking', 'Short', 'Batch', 'Schedule', 'Posting', 'Sending', 'Client', 'Writing', 'Render'] as const;

/**
 * Keeps one stream of events open for as long as it is wanted: it comes back after a refusal, a broken line and sleep, and
 * says when something was missed. EventSource by itself gives up for good at any answer that is not 200.
 * @returns how to close it
 */
function keepStreaming(path: string, onMessage: (message: StreamMessage) => void, onMissed: () => void, onRefused: () => Promise<void>): () => void {
  let source: EventSource | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let waitMs = FIRST_WAIT_MS;
  let openedBefore = false;
  let closed = false;
  const again = (ms: number): void => {
    source?.close();
    source = null;
    clearTimeout(timer);
    if (!closed) timer = setTimeout(open, ms);
  };
  const watch = (): void => {
    clearTimeout(timer);
    timer = setTimeout(() => again(0), SILENCE_MS);
  };
  const open = (): void => {
    source?.close();
    const opened = new EventSource(path);
    source = opened;
    watch();
    opened.onopen = () => {
      waitMs = FIRST_WAIT_MS;
      if (openedBefore) onMissed();
      openedBefore = true;
      watch();
    };
    opened.onmessage = (event: MessageEvent<string>) => {
      watch();
      const message = JSON.parse(event.data) as StreamMessage;
      if (message.type === 'over') {
        again(LONGEST_WAIT_MS);
        void onRefused().then(() => again(0));
      } else onMessage(message);
    };
    opened.onerror = () => {
      again(waitMs);
      waitMs = Math.min(waitMs * 2, LONGEST_WAIT_MS);
      void onRefused();
    };
  };
  const wake = (): void => {
    if (document.visibilityState === 'visible' && source?.readyState !== EventSource.OPEN) again(0);
  };
  document.addEventListener('visibilitychange', wake);
  window.addEventListener('online', wake);
  open();
  return () => {
    closed = true;
    clearTimeout(timer);
    source?.close();
    document.removeEventListener('visibilitychange', wake);
    window.removeEventListener('online', wake);
  };
}

/** Live events of every job one may see, as an endpoint: the stream lives as long as somebody wants its cache entry. */
export const eventsApi = api.injectEndpoints({
  endpoints: (build) => ({
    followJobs: build.query<null, void>({
      queryFn: () => ({ data: null }),
      keepUnusedDataFor: 0,
      async onCacheEntryAdded(_, { dispatch, cacheDataLoaded, cacheEntryRemoved }) {
        await cacheDataLoaded;
        const stop = keepStreaming(
          '/api/progress',
          (message) => {
            if (message.type === 'job') tellOfJob(message.job, dispatch);
            else if (message.type === 'missed') dispatch(api.util.invalidateTags([...MISSED]));
          },
          () => dispatch(api.util.invalidateTags([...MISSED])),
          async () => {
            // A refusal may be a broken line or the end of the session: whoever asks who they are finds out.
            const session = await dispatch(api.endpoints.readSession.initiate(undefined, { forceRefetch: true, subscribe: false }));
            if ((session.error as { status?: unknown } | undefined)?.status !== 401) return;
            dispatch(sessionEnded());
            await untilSignedIn();
          },
        );
        await cacheEntryRemoved;
        stop();
      },
    }),
  }),
});

/** Hundreds may be due in one minute: what they change is loaded once for all that ended in so long. */
const TOGETHER_MS = 400;
let postsTold = false;
function tellOfPosts(dispatch: Dispatch): void {
  if (postsTold) return;
  postsTold = true;
  setTimeout(() => {
    postsTold = false;
    dispatch(api.util.invalidateTags(['Schedule', 'Posting', 'Sending']));
  }, TOGETHER_MS);
}

/** A job's progress is written into what is shown; its end loads what came of it. */
function tellOfJob(job: JobEvent, dispatch: Dispatch): void {
  const shortId = job.about['shortId'];
  if (job.kind === 'writing' && shortId !== undefined) {
    dispatch(api.util.invalidateTags([{ type: 'Writing', id: shortId }]));
    return;
  }
  if (job.kind === 'render' && shortId !== undefined) {
    tellOfRender(job, shortId, dispatch);
    return;
  }
  if (job.kind === 'feed') {
    // What came out in it may be in the list of recordings by now, where the client's rule says so.
    dispatch(api.util.invalidateTags(['Feed', ...(job.state === 'done' ? ([{ type: 'Recording', id: 'LIST' }] as const) : [])]));
    return;
  }
  const postId = job.about['postId'];
  if (job.kind === 'post' && postId !== undefined) {
    // How it stands is told by the post, not by the job, which is one look at it.
    if (job.state === 'done') tellOfPosts(dispatch);
    return;
  }
  const recordingId = job.about['recordingId'];
  if (recordingId === undefined) return;
  if (job.kind === 'fetch') {
    tellOfFetch(job, recordingId, dispatch);
    return;
  }
  if (job.kind === 'prepare') {
    tellOfPreparation(job, recordingId, dispatch);
    return;
  }
  if (job.kind === 'align') {
    tellOfAlignment(job, recordingId, dispatch);
    return;
  }
  if (job.kind !== 'sift') return;
  const { state, stage, fraction, leftMs, failure } = job;
  if (state !== 'running') {
    dispatch(
      api.util.invalidateTags([
        { type: 'Sift', id: recordingId },
        { type: 'Recording', id: recordingId },
        { type: 'Ranking', id: job.subjectId },
      ]),
    );
    return;
  }
  const show = (sift: LatestSiftView | SiftView | null | undefined): void => {
    if (sift?.id === job.subjectId) Object.assign(sift, { state, stage, fraction, leftMs }, 'failure' in sift ? { failure } : {});
  };
  dispatch(
    api.util.updateQueryData('listRecordings', undefined, (recordings: RecordingView[]) => show(recordings.find((one) => one.id === recordingId)?.latestSift)),
  );
  dispatch(api.util.updateQueryData('listSifts', recordingId, (sifts: SiftView[]) => sifts.forEach(show)));
}

/** What a stage made is there when the next one begins. */
function tellOfPreparation(job: JobEvent, recordingId: string, dispatch: Dispatch): void {
  const { state, stage, fraction, leftMs } = job;
  let changed = state !== 'running';
  const show = (recording: RecordingView | undefined): void => {
    const shown = recording?.preparation;
    if (shown?.id !== job.subjectId) return;
    changed ||= shown.stage !== stage;
    Object.assign(shown, { state, stage, fraction, leftMs });
  };
  dispatch(api.util.updateQueryData('listRecordings', undefined, (recordings: RecordingView[]) => show(recordings.find((one) => one.id === recordingId))));
  dispatch(api.util.updateQueryData('readRecording', recordingId, (recording: RecordingView) => show(recording)));
  if (changed) dispatch(api.util.invalidateTags([{ type: 'Recording', id: recordingId }]));
}

/** What was fetched is the recording's file, and often its transcript. */
function tellOfFetch(job: JobEvent, recordingId: string, dispatch: Dispatch): void {
  const { state, stage, fraction, leftMs } = job;
  if (state !== 'running') {
    dispatch(
      api.util.invalidateTags([
        { type: 'Recording', id: recordingId },
        { type: 'Recording', id: 'LIST' },
        ...(state === 'done'
          ? ([
              { type: 'Recording', id: `words of ${recordingId}` },
              { type: 'Sift', id: recordingId },
            ] as const)
          : []),
      ]),
    );
    return;
  }
  const show = (recording: RecordingView | undefined): void => {
    if (recording?.fetch != null) Object.assign(recording.fetch, { state, stage, fraction, leftMs });
  };
  dispatch(api.util.updateQueryData('listRecordings', undefined, (recordings: RecordingView[]) => show(recordings.find((one) => one.id === recordingId))));
  dispatch(api.util.updateQueryData('readRecording', recordingId, (recording: RecordingView) => show(recording)));
}

/** Words that were heard make a transcript, or move what was sifted by it. */
function tellOfAlignment(job: JobEvent, recordingId: string, dispatch: Dispatch): void {
  const { state, stage, fraction, leftMs } = job;
  if (state !== 'running') {
    dispatch(
      api.util.invalidateTags([
        { type: 'Recording', id: recordingId },
        ...(state === 'done' ? (['Ranking', { type: 'Recording', id: `words of ${recordingId}` }, { type: 'Sift', id: recordingId }] as const) : []),
      ]),
    );
    return;
  }
  const show = (recording: RecordingView | undefined): void => {
    if (recording?.alignment != null) Object.assign(recording.alignment, { state, stage, fraction, leftMs });
  };
  dispatch(api.util.updateQueryData('listRecordings', undefined, (recordings: RecordingView[]) => show(recordings.find((one) => one.id === recordingId))));
  dispatch(api.util.updateQueryData('readRecording', recordingId, (recording: RecordingView) => show(recording)));
}

function tellOfRender(job: JobEvent, shortId: string, dispatch: Dispatch): void {
  const { state, stage, fraction, leftMs } = job;
  if (state !== 'running') dispatch(api.util.invalidateTags([{ type: 'Render', id: shortId }]));
  else
    dispatch(
      api.util.updateQueryData('listRenders', shortId, (renders: RenderView[]) => {
        const shown = renders.find((one) => one.id === job.subjectId);
        if (shown !== undefined) Object.assign(shown, { state, stage, fraction, leftMs });
      }),
    );
}

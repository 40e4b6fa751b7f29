import type { LatestSiftView, RecordingView } from './api.js';

/** A sift that is done and that nobody has read. */
export const latestSift = (fields: Partial<LatestSiftView> = {}): LatestSiftView => ({
  id: 's',
  state: 'done',
  stage: 'done',
  fraction: 1,
  leftMs: null,
  candidateCount: 40,
  keptCount: 0,
  strongCount: 9,
  ...fields,
});

/** Half an hour with sound and transcript, not sifted yet. */
export const recordingView = (id: string, title: string, fields: Partial<RecordingView> = {}): RecordingView => ({
  id,
  clientId: 'c1',
  title,
  durationMs: 1_860_000,
  version: 1,
  sound: { name: 'a.mp3', type: 'audio/mpeg', bytes: 9, picture: null, tracks: [{ codec: 'mp3', channels: 2, language: '', title: '' }], track: 0 },
  transcript: {
    sourceName: 'slipway.vtt',
    format: 'webvtt',
    encoding: 'utf-8',
    wordCount: 9_412,
    sentenceCount: 640,
    speakers: ['Ada', 'Bo'],
    wordTimes: 'given',
    sentenceEnds: 'written',
    repairCount: 0,
  },
  preparation: null,
  alignment: null,
  fetch: null,
  origin: null,
  latestSift: null,
  createdAt: '2030-01-01T00:00:00Z',
  ...fields,
});

import type { EpisodeView, FeedView } from './api.js';

/** An episode that came out since its feed is followed. */
export const episodeView = (id: string, fields: Partial<EpisodeView> = {}): EpisodeView => ({
  id,
  clientId: 'c1',
  feedId: 'f1',
  feedTitle: 'Low Water',
  title: `Tide ${id}`,
  summary: 'Of salt and rope.',
  link: null,
  publishedAt: '2030-01-02T12:00:00Z',
  durationMs: 1_860_000,
  season: 2,
  seasonName: '',
  number: '7',
  persons: [],
  video: false,
  bytes: 24_000_000,
  hasTranscript: true,
  hasChapters: false,
  isNew: true,
  recordingId: null,
  ...fields,
});
/** A feed that was read and has one new episode. */
export const feedView = (fields: Partial<FeedView> = {}): FeedView => ({
  id: 'f1',
  clientId: 'c1',
  url: 'https://shows.example/feed.xml',
  title: 'Low Water',
  rule: 'list',
  reading: false,
  readAt: '2030-01-02T12:00:00Z',
  nextReadAt: '2030-01-02T13:00:00Z',
  trouble: null,
  episodeCount: 3,
  newCount: 1,
  version: 1,
  ...fields,
});

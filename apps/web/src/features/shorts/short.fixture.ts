import type { CopyView, ShortChannelView, ShortView } from '../../app/api.js';

export const copyView = (title: string): CopyView => ({ title, description: 'What it is about.', hashtags: ['boats'], keywords: [], coverLine: '' });

export const shortChannel = (fields: Partial<ShortChannelView> = {}): ShortChannelView => ({
  channelId: 'ch1',
  name: 'Tern clips',
  platform: 'Loop',
  titleLimit: 60,
  descriptionLimit: 200,
  hashtagLimit: 5,
  variant: null,
  language: null,
  translated: null,
  problems: [],
  unfit: null,
  ...fields,
});

/** A short that is approved. */
export const shortView = (id: string, title: string, fields: Partial<ShortView> = {}): ShortView => ({
  id,
  clientId: 'c1',
  recordingId: 'r1',
  recordingTitle: 'On the slipway',
  siftId: 's1',
  candidateId: `k${id}`,
  firstWord: 0,
  endWord: 9,
  startMs: 61_000,
  endMs: 103_000,
  playedMs: 42_000,
  edit: { removed: [], pauses: [], corrected: [], before: [], after: [] },
  score: 88,
  kind: 'story',
  firstLine: 'We had no rope.',
  reason: 'A story',
  copy: copyView(title),
  channels: [shortChannel()],
  fixedParts: [],
  evergreen: false,
  comesAgainDays: null,
  approved: true,
  approvedBy: 'Ada',
  postCount: 0,
  version: 3,
  ...fields,
});

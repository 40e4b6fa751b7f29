import { FEED_RULES, type FeedRule, Flag, Id, Instant, OneOf, Text, TextList, Whole } from '@sift-reel/forms';

export class FeedView {
  @Id() id: string;
  @Id() clientId: string;
  @Text({ max: 2_000 }) url: string;
  @Text({ description: 'The name of its host until it was read' }) title: string;
  @OneOf(FEED_RULES) rule: FeedRule;
  @Flag({ description: 'It is being read, or will be in a moment' }) reading: boolean;
  @Instant({ nullable: true, description: 'When it was read last' }) readAt: string | null;
  @Instant({ nullable: true, description: 'Null for a feed that is not read by itself any more' }) nextReadAt: string | null;
  @Text({ nullable: true, max: 1_000, description: 'Why it could not be read, or what was not done by itself' }) trouble: string | null;
  @Whole() episodeCount: number;
  @Whole({ description: 'Episodes that came out since it is followed and were not taken in' }) newCount: number;
  @Whole() version: number;
}

export class EpisodeView {
  @Id() id: string;
  @Id() clientId: string;
  @Id() feedId: string;
  @Text() feedTitle: string;
  @Text() title: string;
  @Text({ max: 600 }) summary: string;
  @Text({ nullable: true, max: 2_000 }) link: string | null;
  @Instant({ nullable: true }) publishedAt: string | null;
  @Whole({ nullable: true }) durationMs: number | null;
  @Whole({ nullable: true }) season: number | null;
  @Text() seasonName: string;
  @Text({ description: 'As it is shown, such as 12; empty where the feed says nothing' }) number: string;
  @TextList({ description: 'Hosts and guests' }) persons: string[];
  @Flag() video: boolean;
  @Whole({ nullable: true }) bytes: number | null;
  @Flag() hasTranscript: boolean;
  @Flag() hasChapters: boolean;
  @Flag({ description: 'Came out after the feed was followed' }) isNew: boolean;
  @Id({ nullable: true, description: 'What it became; null until it is taken in' }) recordingId: string | null;
}

import type { FeedEpisode, FeedFile, FeedPerson, FeedTranscript } from '@sift-reel/core';
import type { FeedRule } from '@sift-reel/forms';
import { Column, DataType, Default, Model, PrimaryKey, Table } from 'sequelize-typescript';

@Table({ tableName: 'feeds', underscored: true, updatedAt: false })
export class Feed extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.TEXT) declare url: string;
  @Column(DataType.TEXT) declare title: string;
  @Column(DataType.TEXT) declare rule: FeedRule;
  /** Of the first page, as it was read last: asked for again on the condition that it changed. */
  @Column(DataType.TEXT) declare etag: string | null;
  @Column(DataType.TEXT) declare lastModified: string | null;
  /** How long it said, when it was read last, that it stays as it is. */
  @Column(DataType.INTEGER) declare ttlMinutes: number | null;
  @Column(DataType.DATE) declare readAt: Date | null;
  /** Null for a feed that ended: it is read again only when somebody asks. */
  @Column(DataType.DATE) declare nextReadAt: Date | null;
  /** Readings in a row that came to nothing. */
  @Default(0) @Column(DataType.INTEGER) declare misses: number;
  @Column(DataType.TEXT) declare trouble: string | null;
  @Column(DataType.UUID) declare createdBy: string | null;
  @Default(1) @Column(DataType.INTEGER) declare version: number;
  declare createdAt: Date;
}

@Table({ tableName: 'episodes', underscored: true, timestamps: false })
export class Episode extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.UUID) declare feedId: string;
  @Column(DataType.TEXT) declare guid: string;
  @Column(DataType.TEXT) declare title: string;
  @Column(DataType.TEXT) declare summary: string;
  @Column(DataType.TEXT) declare link: string | null;
  @Column(DataType.DATE) declare publishedAt: Date | null;
  @Column(DataType.INTEGER) declare durationMs: number | null;
  @Column(DataType.JSONB) declare enclosure: FeedEpisode['enclosure'];
  @Column(DataType.JSONB) declare transcripts: FeedTranscript[];
  @Column(DataType.JSONB) declare chapters: FeedFile | null;
  @Column(DataType.JSONB) declare persons: FeedPerson[];
  @Column(DataType.INTEGER) declare season: number | null;
  @Column(DataType.TEXT) declare seasonName: string;
  @Column(DataType.TEXT) declare number: string;
  /** Came out after the feed was followed. */
  @Column(DataType.BOOLEAN) declare isNew: boolean;
}

/** What is brought in from an address for a recording. */
@Table({ tableName: 'fetches', underscored: true, updatedAt: false })
export class Fetch extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.UUID) declare recordingId: string;
  /** Null for a plain link, and when the feed is not followed any more. */
  @Column(DataType.UUID) declare episodeId: string | null;
  @Column(DataType.TEXT) declare url: string;
  @Column(DataType.JSONB) declare transcripts: FeedFile[];
  @Column(DataType.TEXT) declare chaptersUrl: string | null;
  @Column(DataType.BOOLEAN) declare thenSift: boolean;
  @Column(DataType.UUID) declare askedBy: string | null;
  /** Of the bytes on the disk: see `download`. */
  @Column(DataType.TEXT) declare validator: string | null;
  @Column(DataType.BIGINT) declare bytes: string | null;
  /** What could not be had of it, in words. */
  @Default([]) @Column(DataType.JSONB) declare notes: string[];
  /** When it became the recording's. */
  @Column(DataType.DATE) declare takenAt: Date | null;
}

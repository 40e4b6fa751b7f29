import type { BriefForm } from '@sift-reel/forms';
import { type CardStyle, OPEN_VOICE, PLAIN_CARD, type Shape, type Voice } from '@sift-reel/core';
import { BelongsTo, Column, DataType, Default, ForeignKey, HasMany, Model, PrimaryKey, Table } from 'sequelize-typescript';

@Table({ tableName: 'clients', underscored: true, updatedAt: false })
export class Client extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.TEXT) declare name: string;
  @Column(DataType.TEXT) declare zone: string;
  @Column(DataType.ARRAY(DataType.TEXT)) declare tags: string[];
  @Column(DataType.JSONB) declare standingBrief: BriefForm;
  /** How much each signal counts for this client, in their order; null for the fitted weights. */
  @Column(DataType.ARRAY(DataType.DOUBLE)) declare signalWeights: number[] | null;
  /** How its words sound; what is not there is open. */
  @Default({}) @Column(DataType.JSONB) declare voice: Partial<Voice>;
  /** How its quote cards look; what is not there is plain. */
  @Default({}) @Column(DataType.JSONB) declare cardStyle: Partial<CardStyle>;
  /** The writing service may be asked about its recordings. */
  @Default(false) @Column(DataType.BOOLEAN) declare writingService: boolean;
  /** So many days a finished file is kept; null for good. */
  @Column(DataType.INTEGER) declare filesKeptDays: number | null;
  /** After so many days an evergreen short may stand on a channel again; null where none does. */
  @Column(DataType.INTEGER) declare comeAgainDays: number | null;
  /** A post that is later than this is not sent without a person's word. */
  @Default(120) @Column(DataType.INTEGER) declare lateMinutes: number;
  @Default(1) @Column(DataType.INTEGER) declare version: number;
  /** Out of everybody's sight since then, with all that it owns; null while the agency works for it. */
  @Column(DataType.DATE) declare archivedAt: Date | null;
}

/** A client's voice with every part. */
export const voiceOf = ({ voice }: Pick<Client, 'voice'>): Voice => ({ ...OPEN_VOICE, ...voice });

export const cardStyleOf = ({ cardStyle }: Pick<Client, 'cardStyle'>): CardStyle => ({ ...PLAIN_CARD, ...cardStyle });

@Table({ tableName: 'platform_profiles', underscored: true, timestamps: false })
export class PlatformProfile extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.TEXT) declare name: string;
  @Column(DataType.INTEGER) declare minDurationMs: number;
  @Column(DataType.INTEGER) declare maxDurationMs: number;
  @Column(DataType.ARRAY(DataType.TEXT)) declare shapes: Shape[];
  @Column(DataType.INTEGER) declare titleLimit: number;
  @Column(DataType.INTEGER) declare descriptionLimit: number;
  @Column(DataType.INTEGER) declare hashtagLimit: number;
  @Column(DataType.INTEGER) declare postsPerDay: number;
  @Column(DataType.INTEGER) declare minGapMinutes: number;
  /** Integrated, LUFS. */
  @Column(DataType.DOUBLE) declare loudness: number;
  /** At most, dBTP. */
  @Column(DataType.DOUBLE) declare truePeak: number;
  /** Name of the adapter that its channels post through; null: they are posted by hand. */
  @Column(DataType.TEXT) declare service: string | null;
  @Default(1) @Column(DataType.INTEGER) declare version: number;
}

@Table({ tableName: 'channels', underscored: true, timestamps: false })
export class Channel extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @ForeignKey(() => Client) @Column(DataType.UUID) declare clientId: string;
  @ForeignKey(() => PlatformProfile) @Column(DataType.UUID) declare platformProfileId: string;
  @Column(DataType.TEXT) declare name: string;
  @Column(DataType.TEXT) declare zone: string;
  @Column(DataType.INTEGER) declare order: number;
  @Column(DataType.INTEGER) declare postsPerDay: number;
  @Column(DataType.INTEGER) declare postsPerWeek: number;
  /** What it posts with by itself; null: by hand. */
  @Column(DataType.UUID) declare accountId: string | null;
  /** Since when it does; what was due before is left to whoever posts by hand. */
  @Column(DataType.DATE) declare accountSince: Date | null;
  /** What its posts are in; null for the language of the talk. */
  @Column(DataType.TEXT) declare language: string | null;
  @Default(1) @Column(DataType.INTEGER) declare version: number;
  @BelongsTo(() => PlatformProfile) declare platformProfile: PlatformProfile;
  @HasMany(() => PostingWindow) declare windows: PostingWindow[];
}

@Table({ tableName: 'posting_windows', underscored: true, timestamps: false })
export class PostingWindow extends Model {
  @PrimaryKey @ForeignKey(() => Channel) @Column(DataType.UUID) declare channelId: string;
  @PrimaryKey @Column(DataType.SMALLINT) declare weekday: number;
  @PrimaryKey @Column(DataType.SMALLINT) declare minute: number;
  @Column(DataType.SMALLINT) declare weight: number;
}

@Table({ tableName: 'blackouts', underscored: true, timestamps: false })
export class Blackout extends Model {
  @PrimaryKey @Default(DataType.UUIDV4) @Column(DataType.UUID) declare id: string;
  @Column(DataType.UUID) declare clientId: string;
  @Column(DataType.UUID) declare channelId: string | null;
  @Column(DataType.DATEONLY) declare fromDate: string;
  @Column(DataType.DATEONLY) declare toDate: string;
  @Column(DataType.TEXT) declare reason: string;
}

/** A term that people look for now, of one client's interest list. */
@Table({ tableName: 'interest_terms', underscored: true, timestamps: false })
export class InterestRow extends Model {
  @PrimaryKey @Column(DataType.UUID) declare clientId: string;
  @PrimaryKey @Column(DataType.TEXT) declare term: string;
  @Column(DataType.DOUBLE) declare volume: number;
  @Column(DataType.DOUBLE) declare competition: number;
  @Column(DataType.DOUBLE) declare change: number;
}
